"""a second wall: PostgreSQL itself lets a request reach what is its teacher's, and no more; heads, invitations, a log"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None

# What going back below this revision takes away for good.
loses = "who is a head, with whom alone a set is shared, the ways of schools, invitations, what the log of each teacher says, and accounts' ends"

# Each keeps a teacher's rows, by `teacher_id`.
OWN = (
    "house_change", "sign_in", "entry_link", "account", "answered", "example_set", "example", "change", "share",
    "own_scenario", "school_class", "pupil", "sitting", "answer", "entry", "log_line",
)  # fmt: skip
OTHERS = ("teacher", "school", "invitation")

# What a request says of itself (`store.walls`), and what follows from it. What looks into a table does so as its owner: a
# policy that reads the table that it guards would go round in circles. PL/pgSQL keeps its plans, SQL does not.
FUNCTIONS = """
CREATE FUNCTION keen_slate_said(what text) RETURNS text LANGUAGE sql STABLE
    RETURN nullif(current_setting('keen_slate.' || what, true), '');
CREATE FUNCTION keen_slate_me() RETURNS uuid LANGUAGE sql STABLE
    RETURN keen_slate_said('teacher')::uuid;
CREATE FUNCTION keen_slate_school() RETURNS uuid LANGUAGE plpgsql STABLE SECURITY DEFINER SET search_path = public AS $$
BEGIN
    RETURN (SELECT t.school_id FROM teacher AS t WHERE t.id = keen_slate_me());
END $$;
CREATE FUNCTION keen_slate_headed() RETURNS uuid LANGUAGE plpgsql STABLE SECURITY DEFINER SET search_path = public AS $$
BEGIN
    RETURN (SELECT t.school_id FROM teacher AS t WHERE t.id = keen_slate_me() AND t.head);
END $$;
CREATE FUNCTION keen_slate_is_of(other uuid, school uuid) RETURNS boolean
    LANGUAGE plpgsql STABLE SECURITY DEFINER SET search_path = public AS $$
BEGIN
    RETURN EXISTS (SELECT FROM teacher AS t WHERE t.id = other AND t.school_id = school);
END $$;
-- Whether a set of another may be read: a colleague shares it, or its key was said.
CREATE FUNCTION keen_slate_reads(other uuid, read_set uuid) RETURNS boolean
    LANGUAGE plpgsql STABLE SECURITY DEFINER SET search_path = public AS $$
BEGIN
    RETURN EXISTS (
        SELECT FROM example_set AS s WHERE s.teacher_id = other AND s.id = read_set AND s.place <> 'bin' AND (
            s.show_key = keen_slate_said('shown')
            OR EXISTS (SELECT FROM share AS h WHERE h.teacher_id = other AND h.set_id = read_set
                       AND (h.with_ids IS NULL OR h.with_ids ? keen_slate_me()::text))
               AND keen_slate_is_of(other, keen_slate_school())));
END $$;
-- Whether another teacher may be seen, in her name and ways: a colleague, or whose set is shown.
CREATE FUNCTION keen_slate_sees(other uuid) RETURNS boolean
    LANGUAGE plpgsql STABLE SECURITY DEFINER SET search_path = public AS $$
BEGIN
    RETURN keen_slate_is_of(other, keen_slate_school()) OR EXISTS (
        SELECT FROM example_set AS s WHERE s.teacher_id = other AND s.place <> 'bin' AND s.show_key = keen_slate_said('shown'));
END $$;
-- Whether a school that is not one's own may be seen: who shows a set teaches there, or one is invited.
CREATE FUNCTION keen_slate_sees_school(other uuid) RETURNS boolean
    LANGUAGE plpgsql STABLE SECURITY DEFINER SET search_path = public AS $$
BEGIN
    RETURN EXISTS (SELECT FROM invitation AS i WHERE i.school_id = other AND i.secret = keen_slate_said('link'))
        OR EXISTS (
            SELECT FROM teacher AS t JOIN example_set AS s ON s.teacher_id = t.id
            WHERE t.school_id = other AND s.place <> 'bin' AND s.show_key = keen_slate_said('shown'));
END $$;
-- The school of an invitation, for who has its link, and no longer than it holds.
CREATE FUNCTION keen_slate_join(hashed text) RETURNS boolean
    LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
DECLARE invited invitation;
BEGIN
    DELETE FROM invitation WHERE secret = hashed AND made_at > now() - interval '7 days' RETURNING * INTO invited;
    IF invited.school_id IS NULL OR keen_slate_me() IS NULL THEN RETURN false; END IF;
    DELETE FROM share WHERE teacher_id = keen_slate_me();
    UPDATE teacher SET school_id = invited.school_id, head = invited.head WHERE id = keen_slate_me();
    RETURN true;
END $$;
-- Out of the school that the asking one is head of.
CREATE FUNCTION keen_slate_dismiss(other uuid) RETURNS boolean
    LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
BEGIN
    UPDATE teacher SET school_id = NULL, head = false
        WHERE id = other AND id <> keen_slate_me() AND school_id = keen_slate_headed();
    IF NOT FOUND THEN RETURN false; END IF;
    DELETE FROM share WHERE teacher_id = other;
    RETURN true;
END $$;
-- Whoever has asked to be forgotten, and whose way back is over.
CREATE FUNCTION keen_slate_forget() RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public
    BEGIN ATOMIC DELETE FROM teacher WHERE leaves_at < now(); END;
"""

# What is one's own is looked at first, and is nearly always all there is to look at.
POLICIES = """
CREATE POLICY look ON account FOR SELECT
    USING (teacher_id = (SELECT keen_slate_me()) OR address = (SELECT keen_slate_said('address')));

CREATE POLICY look ON teacher FOR SELECT USING (id = (SELECT keen_slate_me()) OR keen_slate_sees(id));
CREATE POLICY change ON teacher FOR UPDATE USING (id = (SELECT keen_slate_me()));
CREATE POLICY begin ON teacher FOR INSERT
    WITH CHECK (id = (SELECT keen_slate_me()) AND school_id IS NULL AND NOT head);

CREATE POLICY look ON school FOR SELECT USING (id = (SELECT keen_slate_school()) OR keen_slate_sees_school(id));
CREATE POLICY head ON school FOR UPDATE USING (id = (SELECT keen_slate_headed()));
CREATE POLICY head ON invitation USING (school_id = (SELECT keen_slate_headed()));
CREATE POLICY invited ON invitation FOR SELECT USING (secret = (SELECT keen_slate_said('link')));

CREATE POLICY head ON entry_link FOR INSERT WITH CHECK (keen_slate_is_of(teacher_id, keen_slate_headed()));
CREATE POLICY head ON log_line FOR INSERT WITH CHECK (keen_slate_is_of(teacher_id, keen_slate_headed()));

CREATE POLICY look ON share FOR SELECT
    USING (teacher_id = (SELECT keen_slate_me())
           OR (with_ids IS NULL OR with_ids ? (SELECT keen_slate_me())::text)
              AND keen_slate_is_of(teacher_id, (SELECT keen_slate_school())));
CREATE POLICY look ON example_set FOR SELECT
    USING (teacher_id = (SELECT keen_slate_me()) OR keen_slate_reads(teacher_id, id));
CREATE POLICY look ON example FOR SELECT
    USING (teacher_id = (SELECT keen_slate_me()) OR keen_slate_reads(teacher_id, set_id));
"""
# Those that others may look at: what is one's own is told for each command, so that a look has one policy.
LOOKED_AT = ("account", "share", "example_set", "example")


def upgrade() -> None:
    op.add_column("teacher", sa.Column("head", sa.Boolean(), server_default="false", nullable=False))
    op.add_column("teacher", sa.Column("leaves_at", sa.DateTime(timezone=True), nullable=True))
    op.add_column("school", sa.Column("ways", JSONB(), server_default="{}", nullable=False))
    op.add_column("school", sa.Column("version", sa.Integer(), server_default="1", nullable=False))
    op.add_column("share", sa.Column("with_ids", JSONB(), nullable=True))
    op.create_table(
        "invitation",
        sa.Column("school_id", sa.Uuid(), nullable=False),
        sa.Column("secret", sa.String(64), nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("head", sa.Boolean(), server_default="false", nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.ForeignKeyConstraint(
            ["school_id"], ["school.id"], name="fk_invitation_school_id_school", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("school_id", "secret", name="pk_invitation"),
    )
    op.create_table(
        "log_line",
        sa.Column("teacher_id", sa.Uuid(), nullable=False),
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("said", sa.Text(), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.ForeignKeyConstraint(
            ["teacher_id"], ["teacher.id"], name="fk_log_line_teacher_id_teacher", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("teacher_id", "id", name="pk_log_line"),
    )
    op.create_index("ix_log_line_teacher_id_made_at", "log_line", ["teacher_id", "made_at"])
    op.execute(FUNCTIONS)
    for table in (*OWN, *OTHERS):
        op.execute(f"ALTER TABLE {table} ENABLE ROW LEVEL SECURITY")
    own = "teacher_id = (SELECT keen_slate_me())"
    for table in OWN:
        if table not in LOOKED_AT:
            op.execute(f"CREATE POLICY own ON {table} USING ({own})")
            continue
        op.execute(f"CREATE POLICY make ON {table} FOR INSERT WITH CHECK ({own})")
        for command in ("UPDATE", "DELETE"):
            op.execute(f"CREATE POLICY own_{command.lower()} ON {table} FOR {command} USING ({own})")
    op.execute(POLICIES)


def downgrade() -> None:
    drop = "SELECT format('DROP POLICY %I ON %I', policyname, tablename) FROM pg_policies WHERE schemaname = 'public'"
    for (said,) in op.get_bind().execute(sa.text(drop)).all():
        op.execute(said)
    for table in (*OWN, *OTHERS):
        op.execute(f"ALTER TABLE {table} DISABLE ROW LEVEL SECURITY")
    for function in (
        "forget()", "dismiss(uuid)", "join(text)", "sees_school(uuid)", "sees(uuid)", "reads(uuid, uuid)", "is_of(uuid, uuid)", "headed()",
        "school()", "me()", "said(text)",
    ):  # fmt: skip
        op.execute(f"DROP FUNCTION keen_slate_{function}")
    op.drop_table("log_line")
    op.drop_table("invitation")
    # What was shared with some of the colleagues is shared with nobody rather than with all of them.
    op.execute("DELETE FROM share WHERE with_ids IS NOT NULL")
    op.drop_column("share", "with_ids")
    op.drop_column("school", "version")
    op.drop_column("school", "ways")
    op.drop_column("teacher", "leaves_at")
    op.drop_column("teacher", "head")

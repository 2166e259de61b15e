"""The tables. Every row belongs to a teacher, whose id leads every key and index, so data can be spread by it.

Only what a teacher made is stored: texts, order, settings, edited words. Workings, estimates, wrong answers
and pictures are computed anew.
"""

from __future__ import annotations

import uuid
from datetime import date, datetime
from typing import Annotated, Any

from sqlalchemy import BigInteger, DateTime, ForeignKey, ForeignKeyConstraint, Index, MetaData, String, Text, func
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, relationship

from keen_slate.core.limits import ADDRESS_LENGTH, ALIAS_LENGTH, TITLE_LENGTH

uuid_key = Annotated[uuid.UUID, mapped_column(primary_key=True)]
teacher_key = Annotated[uuid.UUID, mapped_column(ForeignKey("teacher.id", ondelete="CASCADE"), primary_key=True)]
moment = Annotated[datetime, mapped_column(DateTime(timezone=True), server_default=func.now())]
settings = Annotated[dict[str, str], mapped_column(JSONB, default=dict, server_default="{}")]
document = Annotated[dict[str, Any], mapped_column(JSONB, default=dict, server_default="{}")]
long_text = Annotated[str, mapped_column(Text, default="", server_default="")]


def _of_class() -> ForeignKeyConstraint:
    return ForeignKeyConstraint(
        ["teacher_id", "class_id"], ["school_class.teacher_id", "school_class.id"], ondelete="CASCADE"
    )


class Base(DeclarativeBase):
    """All tables, with names for their constraints that migrations can rely on."""

    metadata = MetaData(
        naming_convention={
            "ix": "ix_%(table_name)s_%(column_0_N_name)s",
            "uq": "uq_%(table_name)s_%(column_0_N_name)s",
            "ck": "ck_%(table_name)s_%(constraint_name)s",
            "fk": "fk_%(table_name)s_%(column_0_N_name)s_%(referred_table_name)s",
            "pk": "pk_%(table_name)s",
        }
    )
    type_annotation_map = {dict[str, Any]: JSONB}


class School(Base):
    """Where teachers are colleagues: they see what they share with each other, and nothing of any other school.

    *ways* hold for all of them, before those of each: what departs from the defaults. *version* counts their changes,
    *at_change* is the change of their history that they stand at.
    """

    __tablename__ = "school"

    id: Mapped[uuid_key]
    name: Mapped[str] = mapped_column(String(TITLE_LENGTH))
    ways: Mapped[settings]
    version: Mapped[int] = mapped_column(default=1, server_default="1")
    at_change: Mapped[int] = mapped_column(default=0, server_default="0")
    made_at: Mapped[moment]

    __table_args__ = (Index(None, "name", unique=True),)


class SchoolChange(Base):
    """A change of a school's ways, with the ways as they were *after* it; number 0 is what the history found."""

    __tablename__ = "school_change"

    school_id: Mapped[uuid.UUID] = mapped_column(ForeignKey("school.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    said: Mapped[str] = mapped_column(Text)
    after: Mapped[dict[str, Any]] = mapped_column(JSONB)
    made_at: Mapped[moment]


class Invitation(Base):
    """A link by which somebody called *name* comes into a school, as its *head* or not: a hash of its *secret*."""

    __tablename__ = "invitation"

    school_id: Mapped[uuid.UUID] = mapped_column(ForeignKey("school.id", ondelete="CASCADE"), primary_key=True)
    secret: Mapped[str] = mapped_column(String(64), primary_key=True)
    name: Mapped[str] = mapped_column(String(TITLE_LENGTH))
    head: Mapped[bool] = mapped_column(default=False, server_default="false")
    made_at: Mapped[moment]


class Teacher(Base):
    """Somebody who makes sets, in a school or in none. *ways* are the house's: what departs from the defaults.

    *version* counts the changes of the ways, *at_change* is the change of their history that they stand at. *head* says
    that she invites others to the school and sets its ways. At *leaves_at* all that is hers goes for good, if she
    wished so.
    """

    __tablename__ = "teacher"

    id: Mapped[uuid_key]
    name: Mapped[str] = mapped_column(String(TITLE_LENGTH))
    school_id: Mapped[uuid.UUID | None] = mapped_column(ForeignKey("school.id", ondelete="SET NULL"))
    ways: Mapped[settings]
    version: Mapped[int] = mapped_column(default=1, server_default="1")
    at_change: Mapped[int] = mapped_column(default=0, server_default="0")
    head: Mapped[bool] = mapped_column(default=False, server_default="false")
    leaves_at: Mapped[datetime | None] = mapped_column(DateTime(timezone=True))
    created_at: Mapped[moment]

    school: Mapped[School | None] = relationship()

    __table_args__ = (Index(None, "school_id"),)


class LogLine(Base):
    """What was done with a teacher's account, and is *said* to her: sign-ins, shares, exports, deletions."""

    __tablename__ = "log_line"

    teacher_id: Mapped[teacher_key]
    id: Mapped[uuid_key]
    said: Mapped[str] = mapped_column(Text)
    made_at: Mapped[moment]

    __table_args__ = (Index(None, "teacher_id", "made_at"),)


class HouseChange(Base):
    """A change of a teacher's ways, with the ways as they were *after* it; number 0 is what the history found."""

    __tablename__ = "house_change"

    teacher_id: Mapped[teacher_key]
    number: Mapped[int] = mapped_column(primary_key=True)
    said: Mapped[str] = mapped_column(Text)
    after: Mapped[dict[str, Any]] = mapped_column(JSONB)
    made_at: Mapped[moment]


class SignIn(Base):
    """A browser in which a teacher is signed in, *by_link* or otherwise: a hash of its cookie's *secret*."""

    __tablename__ = "sign_in"

    teacher_id: Mapped[teacher_key]
    secret: Mapped[str] = mapped_column(String(64), primary_key=True)
    by_link: Mapped[bool] = mapped_column(default=True, server_default="true")
    seen_at: Mapped[moment]
    made_at: Mapped[moment]


class EntryLink(Base):
    """A link that signs its teacher in once: a hash of the *secret* in it."""

    __tablename__ = "entry_link"

    teacher_id: Mapped[teacher_key]
    secret: Mapped[str] = mapped_column(String(64), primary_key=True)
    made_at: Mapped[moment]


class Account(Base):
    """The *address* that a teacher signs in by, in small letters, and her *password* as argon2 keeps it.

    It is looked up before anybody knows which teacher it is, so the address leads, the one exception of this kind.
    """

    __tablename__ = "account"

    address: Mapped[str] = mapped_column(String(ADDRESS_LENGTH), primary_key=True)
    teacher_id: Mapped[uuid.UUID] = mapped_column(ForeignKey("teacher.id", ondelete="CASCADE"))
    password: Mapped[str] = mapped_column(Text)
    changed_at: Mapped[moment]

    __table_args__ = (Index(None, "teacher_id", unique=True),)


class Tries(Base):
    """How many tries to sign in there were *since* a moment: a hash says for whom, or from where. They are nobody's."""

    __tablename__ = "tries"

    subject: Mapped[str] = mapped_column(String(64), primary_key=True)
    count: Mapped[int]
    since: Mapped[moment]


class Passkey(Base):
    """The public key of a passkey under its device's *id* for it; *count* is how often the device says it was used."""

    __tablename__ = "passkey"

    teacher_id: Mapped[teacher_key]
    id: Mapped[str] = mapped_column(String(1400), primary_key=True)
    public_key: Mapped[bytes]
    count: Mapped[int] = mapped_column(BigInteger)
    name: Mapped[str] = mapped_column(String(TITLE_LENGTH))
    seen_at: Mapped[datetime | None] = mapped_column(DateTime(timezone=True))
    made_at: Mapped[moment]


class Challenge(Base):
    """What a device is to answer, once, in hexadecimal digits. It is nobody's."""

    __tablename__ = "challenge"

    said: Mapped[str] = mapped_column(String(64), primary_key=True)
    made_at: Mapped[moment]

    __table_args__ = (Index(None, "made_at"),)


class Begun(Base):
    """A way to the school's own sign-in that has begun, by the hash of its *state*, and what it is *meant* for.

    It is nobody's.
    """

    __tablename__ = "begun"

    state: Mapped[str] = mapped_column(String(64), primary_key=True)
    meant: Mapped[str] = mapped_column(String(64))
    nonce: Mapped[str] = mapped_column(String(64))
    verifier: Mapped[str] = mapped_column(String(64))
    made_at: Mapped[moment]

    __table_args__ = (Index(None, "made_at"),)


class Identity(Base):
    """Who a teacher is to the school's own sign-in: *hashed* from the provider and its subject; *name* as it is said
    there.

    It is looked up before anybody knows which teacher it is, as an address is.
    """

    __tablename__ = "identity"

    hashed: Mapped[str] = mapped_column(String(64), primary_key=True)
    teacher_id: Mapped[uuid.UUID] = mapped_column(ForeignKey("teacher.id", ondelete="CASCADE"))
    name: Mapped[str] = mapped_column(String(TITLE_LENGTH))
    seen_at: Mapped[datetime | None] = mapped_column(DateTime(timezone=True))
    made_at: Mapped[moment]

    __table_args__ = (Index(None, "teacher_id"),)


class Answered(Base):
    """A change that was made, under the *key* that the page gave it, and what was answered (compressed).

    *digest* tells what the change was: the same key with another one is a mistake.
    What was said of a class goes with it: *class_id* is the one that the change was about.
    """

    __tablename__ = "answered"

    teacher_id: Mapped[teacher_key]
    key: Mapped[uuid_key]
    digest: Mapped[str] = mapped_column(String(64), default="", server_default="")
    status: Mapped[int]
    body: Mapped[bytes]
    class_id: Mapped[uuid.UUID | None]
    made_at: Mapped[moment]

    __table_args__ = (_of_class(), Index(None, "teacher_id", "class_id"))


class ExampleSet(Base):
    """A set of worked examples. *version* counts its changes, so that two tabs cannot overwrite each other.

    *ways* are those of the set: what departs from the house. *words* are its teacher's, for all steps of a kind.
    *place* is where it lies: on the shelf, in the archive or in the bin. *at_change* is the change of its history that
    it stands at: those after it were undone. *show_key* is the secret part of the address under which it may be read.
    *searched* is all that is written in it, in small letters, where a search looks.
    """

    __tablename__ = "example_set"

    teacher_id: Mapped[teacher_key]
    id: Mapped[uuid_key]
    title: Mapped[str] = mapped_column(String(TITLE_LENGTH))
    version: Mapped[int] = mapped_column()
    ways: Mapped[settings]
    words: Mapped[settings]
    note: Mapped[long_text]
    objective: Mapped[long_text]
    standards: Mapped[list[str]] = mapped_column(JSONB, default=list, server_default="[]")
    lesson_minutes: Mapped[int | None]
    place: Mapped[str] = mapped_column(String(8), default="shelf", server_default="shelf")
    show_key: Mapped[str | None] = mapped_column(String(43))
    searched: Mapped[str] = mapped_column(Text, default="", server_default="", deferred=True)
    at_change: Mapped[int] = mapped_column(default=0, server_default="0")
    created_at: Mapped[moment]
    changed_at: Mapped[moment] = mapped_column(onupdate=func.now())

    examples: Mapped[list[Example]] = relationship(
        back_populates="example_set", order_by="Example.position", cascade="all, delete-orphan", passive_deletes=True
    )

    # What the database fills in comes back with the change itself.
    __mapper_args__ = {"version_id_col": version, "eager_defaults": True}
    __table_args__ = (Index(None, "teacher_id", "place", "changed_at"),)


class Example(Base):
    """A problem on the ladder as it was typed, with its own ways and the words its teacher wrote for its steps.

    *target* is the form that a lone number is to be converted to. *fading* is what pupils fill in, *marks* are the
    points that its teacher gives, by key. *time_log* has the seconds that it was shown for on each day. *summary* is
    what the ladder and the Shelf show of it, worked once; it holds as long as *summary_key* does (see
    `store.summaries`).
    """

    __tablename__ = "example"

    teacher_id: Mapped[uuid_key]
    id: Mapped[uuid_key]
    set_id: Mapped[uuid.UUID]
    position: Mapped[int]
    source: Mapped[str] = mapped_column(Text)
    target: Mapped[str | None] = mapped_column(String(12))
    ways: Mapped[settings]
    words: Mapped[settings]
    note: Mapped[long_text]
    fading: Mapped[document]
    marks: Mapped[document]
    time_log: Mapped[list[dict[str, Any]]] = mapped_column(JSONB, default=list, server_default="[]")

    summary: Mapped[dict[str, Any] | None] = mapped_column(JSONB)
    summary_key: Mapped[str | None] = mapped_column(String(32))

    example_set: Mapped[ExampleSet] = relationship(back_populates="examples")

    __table_args__ = (
        ForeignKeyConstraint(
            ["teacher_id", "set_id"], ["example_set.teacher_id", "example_set.id"], ondelete="CASCADE"
        ),
        Index(None, "teacher_id", "set_id", "position"),
    )


class Change(Base):
    """A change to a set, with the whole set as it was *after* it; number 0 is the set as the history found it.

    *said* tells the teacher what undoing it takes back.
    """

    __tablename__ = "change"

    teacher_id: Mapped[uuid_key]
    set_id: Mapped[uuid_key]
    number: Mapped[int] = mapped_column(primary_key=True)
    said: Mapped[str] = mapped_column(Text)
    after: Mapped[dict[str, Any]] = mapped_column(JSONB)
    made_at: Mapped[moment]

    __table_args__ = (
        ForeignKeyConstraint(
            ["teacher_id", "set_id"], ["example_set.teacher_id", "example_set.id"], ondelete="CASCADE"
        ),
    )


class Share(Base):
    """A set that its teacher shares with colleagues of her school: they read it and take copies, and change nothing.

    *with_ids* are the teachers with whom alone it is shared; None for all of them.
    """

    __tablename__ = "share"

    teacher_id: Mapped[uuid_key]
    set_id: Mapped[uuid_key]
    with_ids: Mapped[list[str] | None] = mapped_column(JSONB(none_as_null=True))
    made_at: Mapped[moment]

    __table_args__ = (
        ForeignKeyConstraint(
            ["teacher_id", "set_id"], ["example_set.teacher_id", "example_set.id"], ondelete="CASCADE"
        ),
    )


class OwnScenario(Base):
    """A scenario for stories that a teacher made, as its published *document*, under a *code* of hers."""

    __tablename__ = "own_scenario"

    teacher_id: Mapped[teacher_key]
    code: Mapped[str] = mapped_column(String(60), primary_key=True)
    document: Mapped[dict[str, Any]] = mapped_column(JSONB)
    made_at: Mapped[moment]


class SchoolClass(Base):
    """A class of a teacher. What was mastered *returns* after so many days; sittings are forgotten after so many
    months, if any are named.

    *known* is what the core says of all its sittings together, each with the key of what it rests on.
    """

    __tablename__ = "school_class"

    teacher_id: Mapped[teacher_key]
    id: Mapped[uuid_key]
    name: Mapped[str] = mapped_column(String(TITLE_LENGTH))
    returns: Mapped[list[int]] = mapped_column(JSONB)
    forget_months: Mapped[int | None]
    known: Mapped[dict[str, Any] | None] = mapped_column(JSONB, deferred=True)
    created_at: Mapped[moment]


class Pupil(Base):
    """A pupil under an *alias*; *here* is False for one who has left. All that she wrote goes with her row."""

    __tablename__ = "pupil"

    teacher_id: Mapped[teacher_key]
    id: Mapped[uuid_key]
    class_id: Mapped[uuid.UUID]
    alias: Mapped[str] = mapped_column(String(ALIAS_LENGTH))
    position: Mapped[int]
    here: Mapped[bool] = mapped_column(default=True, server_default="true")

    __table_args__ = (_of_class(), Index(None, "teacher_id", "class_id", "position"))


class Sitting(Base):
    """A class, a day and a *kind*, with a snapshot of the set as it was given: its *title* and *questions*. *set_id*
    may be gone by now.

    *counter* counts the entries, so that another page sees what is new. *moves* are pupils put into a group by hand (id
    -> codes). *known* is what the core says of questions and answers, kept while its rules are those of *known_key*.
    """

    __tablename__ = "sitting"

    teacher_id: Mapped[teacher_key]
    id: Mapped[uuid_key]
    class_id: Mapped[uuid.UUID]
    set_id: Mapped[uuid.UUID | None]
    title: Mapped[str] = mapped_column(String(TITLE_LENGTH))
    day: Mapped[date]
    kind: Mapped[str] = mapped_column(String(12))
    questions: Mapped[list[dict[str, Any]]] = mapped_column(JSONB)
    moves: Mapped[dict[str, list[str]]] = mapped_column(JSONB, default=dict, server_default="{}")
    counter: Mapped[int] = mapped_column(default=0, server_default="0")
    known: Mapped[dict[str, Any] | None] = mapped_column(JSONB, deferred=True)
    known_key: Mapped[str | None] = mapped_column(String(64))
    created_at: Mapped[moment]

    __table_args__ = (_of_class(), Index(None, "teacher_id", "class_id", "day"))


def _of_sitting() -> tuple[ForeignKeyConstraint, ForeignKeyConstraint]:
    return (
        ForeignKeyConstraint(["teacher_id", "sitting_id"], ["sitting.teacher_id", "sitting.id"], ondelete="CASCADE"),
        ForeignKeyConstraint(["teacher_id", "pupil_id"], ["pupil.teacher_id", "pupil.id"], ondelete="CASCADE"),
    )


class Answer(Base):
    """What a pupil wrote to a question (by its *number* from 0): "" is a blank, no text that she was away. *word* is
    the teacher's, *counter* the entry that it comes from.
    """

    __tablename__ = "answer"

    teacher_id: Mapped[teacher_key]
    sitting_id: Mapped[uuid_key]
    pupil_id: Mapped[uuid_key]
    number: Mapped[int] = mapped_column(primary_key=True)
    written: Mapped[str | None] = mapped_column(Text)
    word: Mapped[document]
    counter: Mapped[int]

    __table_args__ = (*_of_sitting(), Index(None, "teacher_id", "sitting_id", "counter"))


class Entry(Base):
    """Who entered what, and when: a line of the log of a sitting, the *counter* its number.

    *gone* says that the cell was emptied.
    """

    __tablename__ = "entry"

    teacher_id: Mapped[teacher_key]
    sitting_id: Mapped[uuid_key]
    counter: Mapped[int] = mapped_column(primary_key=True)
    pupil_id: Mapped[uuid.UUID]
    number: Mapped[int]
    written: Mapped[str | None] = mapped_column(Text)
    word: Mapped[document]
    gone: Mapped[bool]
    made_by: Mapped[str] = mapped_column(String(8))
    made_at: Mapped[moment]

    __table_args__ = (*_of_sitting(), Index(None, "teacher_id", "pupil_id"))

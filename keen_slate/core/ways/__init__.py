"""How a class does things. In: names and codes. Out: `Ways`, each setting declared once, and the class's own words."""

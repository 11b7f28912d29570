"""The sign-ins of the demo, offered as buttons in demo mode only."""

PASSWORD = "larkfield"
SIGN_INS = [
    {"username": username, "password": PASSWORD, "name": name, "what": what}
    for username, name, what in (
        ("okafor", "R. Okafor", "teacher, leads 8 Plot"),
        ("thandi", "Thandi Dube", "student in 8 Plot, period 3"),
        ("josh", "Josh Ellery", "student in 8 Plot, period 3"),
        ("marsh", "J. Marsh", "co-teacher in 8 Plot"),
        ("sandoval", "P. Sandoval", "marker in 8 Plot"),
        ("lindqvist", "M. Lindqvist", "learning-support coordinator"),
        ("whitcombe", "A. Whitcombe", "head, observer"),
        ("bright", "S. Bright", "school administrator"),
    )
]

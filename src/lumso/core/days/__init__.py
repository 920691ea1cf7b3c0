"""The days: when what is done, in the hours somebody has, by the air the room has."""

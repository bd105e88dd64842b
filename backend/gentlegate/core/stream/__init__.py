"""Running the stream: category, markers, clips, ads, raids, shoutouts, arrivals, happenings, quotes."""

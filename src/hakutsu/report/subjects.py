"""The subjects of an inspection as report and logbook call them."""

from hakutsu.entries.general import Station

LIMIT_OF = {
    Station.FILM: "Paint thickness", Station.GENERAL: "The whole vehicle", Station.OUTSIDE: "Outside",
    Station.CORNERS: "Wheels and brakes", Station.UNDER: "Underside", Station.ENGINE: "Engine",
    Station.FUNCTIONS: "Functions", Station.CABIN: "Cabin", Station.SCAN: "Scan", Station.ROAD: "Road test",
    Station.PAPERS: "Papers",
}  # fmt: skip

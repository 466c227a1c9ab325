"""All readers of files, loaded once before any of them runs in a process of its own."""

from omnifer.formats import bundle, kit_csv, picture, stations, stops_csv, tracks, workbook

READERS = (bundle, kit_csv, picture, stations, stops_csv, tracks, workbook)

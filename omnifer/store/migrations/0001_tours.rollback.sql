DROP TABLE tour_state, tour, track, owner CASCADE;

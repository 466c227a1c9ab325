-- There is no way back to states of one piece: a backup is the way back.
SELECT 1 / 0;

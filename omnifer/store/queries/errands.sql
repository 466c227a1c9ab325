-- name: add_errand$
INSERT INTO errand (owner_id, asker, kind, tour_id, asked) VALUES (:owner_id, :asker, :kind, :tour_id, :asked) RETURNING id;

-- name: add_errand_file!
INSERT INTO errand_file (owner_id, errand_id, number, content) VALUES (:owner_id, :errand_id, :number, :content);

-- name: count_errands$
-- Of some kinds.
SELECT count(*) FROM errand WHERE owner_id = :owner_id AND kind = ANY(:kinds);

-- name: forget_unwanted!
-- What nobody waits for any more: the lock that the asking web server holds dies with it.
DELETE FROM errand WHERE owner_id = :owner_id AND NOT advisory_held(:lock, asker);

-- name: read_errand^
SELECT kind, tour_id, asked, advisory_held(:lock, asker) AS wanted FROM errand WHERE owner_id = :owner_id AND id = :errand_id;

-- name: errand_wanted^
-- Whether its asker still listens, and whether the worker whose process asks still has it.
SELECT granted, advisory_held(:lock, asker) AS wanted, advisory_held(:working, :worker_id) AS had
  FROM errand WHERE owner_id = :owner_id AND id = :errand_id;

-- name: count_errand_files$
SELECT count(*) FROM errand_file WHERE owner_id = :owner_id AND errand_id = :errand_id;

-- name: errand_file$
SELECT content FROM errand_file WHERE owner_id = :owner_id AND errand_id = :errand_id AND number = :number;

-- name: tell_errand!
INSERT INTO errand_news (owner_id, errand_id, number, event, body)
SELECT :owner_id, :errand_id, coalesce(max(number), 0) + 1, :event, :body FROM errand_news WHERE errand_id = :errand_id;

-- name: wake!
SELECT pg_notify(:channel, CAST(:errand_id AS text));

-- name: errand_news
SELECT number, event, body FROM errand_news WHERE owner_id = :owner_id AND errand_id = :errand_id AND number > :seen ORDER BY number;

-- name: grant_errand!
UPDATE errand SET granted = true WHERE owner_id = :owner_id AND id = :errand_id;

-- name: forget_news!
-- What a worker told that was killed: another begins anew.
DELETE FROM errand_news WHERE owner_id = :owner_id AND errand_id = :errand_id;

-- name: end_errand!
DELETE FROM errand WHERE owner_id = :owner_id AND id = :errand_id;

-- name: place_in_queue^
-- How a job stands, how many wait before it, and whether whoever does it is still alive.
SELECT job.status::text AS status,
       (SELECT count(*) FROM procrastinate_jobs AS other
         WHERE other.status = 'todo' AND other.queue_name = job.queue_name AND other.id < job.id) AS before,
       (SELECT count(*) FROM pg_locks
         WHERE locktype = 'advisory' AND classid = CAST(:lock AS oid) AND objsubid = 2
           AND database = (SELECT oid FROM pg_database WHERE datname = current_database())) AS workers,
       job.status <> 'doing' OR advisory_held(:lock, CAST(job.worker_id AS integer)) AS alive
  FROM procrastinate_jobs AS job
 WHERE job.id = :job_id;

-- name: give_back_left_behind!
-- Jobs whose worker is gone, or the one named of these, into the queue again: looked at and given back in one, so that of two who
-- notice at once only one gives it back, and none takes it from the worker that has it by then. Workers hear of new jobs only: told.
SELECT procrastinate_retry_job_v2(id, now(), NULL, NULL, NULL),
       pg_notify('procrastinate_any_queue_v1', json_build_object('type', 'job_inserted', 'job_id', id)::text),
       pg_notify('procrastinate_queue_v1#' || queue_name, json_build_object('type', 'job_inserted', 'job_id', id)::text)
  FROM (SELECT id, queue_name FROM procrastinate_jobs
         WHERE status = 'doing' AND NOT coalesce(advisory_held(:lock, CAST(worker_id AS integer)), false)
           AND (CAST(:job_id AS bigint) IS NULL OR id = :job_id)
           FOR UPDATE) AS left_behind;

-- name: queue_lengths
SELECT queue_name, status::text AS status, count(*) AS jobs FROM procrastinate_jobs WHERE status IN ('todo', 'doing') GROUP BY 1, 2;

-- name: workers_there$
SELECT count(*) FROM pg_locks
 WHERE locktype = 'advisory' AND classid = CAST(:lock AS oid) AND objsubid = 2
   AND database = (SELECT oid FROM pg_database WHERE datname = current_database());

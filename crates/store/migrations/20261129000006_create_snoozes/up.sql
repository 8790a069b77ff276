-- Jobs that somebody put off: the job's key among those of its controller, until when, and why. On its day a job
-- is there again by itself.
CREATE TABLE snoozes (
    account_id uuid NOT NULL,
    controller_id uuid NOT NULL,
    job text NOT NULL CHECK (length(job) BETWEEN 1 AND 60),
    until date NOT NULL CHECK (until BETWEEN '1900-01-01' AND '2200-12-31'),
    reason text NOT NULL CHECK (length(reason) BETWEEN 1 AND 240),
    user_id uuid NOT NULL,
    user_name text NOT NULL,
    at timestamptz NOT NULL,
    PRIMARY KEY (account_id, controller_id, job),
    FOREIGN KEY (account_id, controller_id) REFERENCES aggregates (account_id, id),
    FOREIGN KEY (account_id, user_id) REFERENCES users (account_id, id)
);
CREATE INDEX snoozes_user ON snoozes (account_id, user_id);

package jobs

import (
	"context"
	"time"

	"github.com/riverqueue/river"
	"github.com/riverqueue/river/rivertype"
)

// What logs say is read again soon after something was written, and when a studio's day is
// another one.
const (
	readEvery = 10 * time.Second
	readTime  = 5 * time.Minute // for all there are, the first time
)

// readLogs reads the logs that have to be.
type readLogs struct{}

// Kind names it in the queue.
func (readLogs) Kind() string { return "read_logs" }

type logReader struct {
	river.WorkerDefaults[readLogs]
	read func(context.Context) error
}

func (r *logReader) Timeout(*river.Job[readLogs]) time.Duration { return readTime }

func (r *logReader) Work(ctx context.Context, _ *river.Job[readLogs]) error {
	if r.read == nil {
		return nil
	}
	return r.read(ctx)
}

// readings is the round; one that still runs is not begun a second time.
func readings() (river.JobArgs, *river.InsertOpts) {
	return readLogs{}, &river.InsertOpts{MaxAttempts: 1, UniqueOpts: river.UniqueOpts{ByArgs: true, ByState: []rivertype.JobState{
		rivertype.JobStateAvailable, rivertype.JobStatePending, rivertype.JobStateRunning, rivertype.JobStateScheduled,
	}}}
}

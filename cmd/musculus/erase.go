package main

import (
	"context"
	"log/slog"
	"time"

	"musculus/internal/photos"
	"musculus/internal/store"
)

// roundEvery is how often what is due is erased.
const roundEvery = 12 * time.Hour

// eraseRounds erases for good, now and then until ctx ends, whoever was deleted a
// month ago, photos first.
func eraseRounds(ctx context.Context, s *store.Store, folder photos.Folder) {
	for {
		erased, err := s.EraseDue(ctx, time.Now(), folder.Drop)
		switch {
		case err != nil && ctx.Err() == nil:
			slog.Error("erasing what is due", "err", err.Error())
		case erased > 0:
			slog.Info("erased deleted clients for good", "clients", erased)
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(roundEvery):
		}
	}
}

package view

import (
	"testing"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
)

// BenchmarkViewOfASetUp is everything an answer about one set-up needs: profile,
// slice, ribbon, pose figure with its tracks, settings.
func BenchmarkViewOfASetUp(b *testing.B) {
	y, err := effort.NewYardstick(arm.DefaultBody)
	if err != nil {
		b.Fatal(err)
	}
	s := movement.Shipped.Get("curl_reclined").Default()
	b.ReportAllocs()
	for b.Loop() {
		SetUpOf(s, y, stance.ByID(stance.Default), nil)
	}
}

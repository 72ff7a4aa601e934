// Package placing says how exactly every layer of an image must be placed, which way to
// place it, what is to be seen when it lies off, and what a measured proof tells.
package placing

import (
	"ochrestone/core/look"
	"ochrestone/core/measure"
	"ochrestone/core/memory"
	"ochrestone/core/register"
)

// Hand is what is assumed of the person's hand and eye.
type Hand struct {
	Limits    register.Limits // what the eye forgives
	Ways      []register.Way  // of placing, simplest first
	Hinge     Hinge           // of the positioner
	Practised *register.Way   // as practised on the screen; nil where there was too little of it
	Write     measure.Writing // how measures are written in sentences
	Step      float64         // least difference of L* between two inks on one stamp without a wash
}

// Study is an image to be placed, with what it is made from and the hand it is placed
// by. Its methods are safe for use by several goroutines.
type Study struct {
	Stock  look.Stock
	Image  look.Image
	Hand   Hand
	Memory *Memory
	Looks  []look.Colourway // how its colourways dry, as far as that is known already
}

// Memory remembers plays and chances by everything they depend on.
type Memory struct {
	plays *memory.Of[playKey, register.Play]
	tried *memory.Of[chanceKey, float64]
}

// NewMemory returns an empty memory.
func NewMemory() *Memory {
	return &Memory{memory.New[playKey, register.Play](mostPlays), memory.New[chanceKey, float64](mostChances)}
}

package plan

import (
	"context"
	"sync"

	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/layout"
	"ochrestone/core/look"
	"ochrestone/core/measure"
	"ochrestone/core/placing"
	"ochrestone/core/register"
	"ochrestone/core/work"
)

// Option changes what Of assumes.
type Option func(*options)

type options struct {
	hand     placing.Hand
	readable float64
	write    measure.Writing
	face     layout.Typeface
	ctx      context.Context
	carriers []depth.Carrier
	room     int
	pace     work.Pace
	paced    int
	tally    bool
	have     *made
}

// made is a plan of a card.
type made struct {
	card card.Card
	plan Plan
}

// assumed are the defaults with the options over them.
func assumed(opts []Option) options {
	o := options{readable: look.Readable, ctx: context.Background(),
		hand:  placing.Hand{Limits: register.Defaults(), Ways: register.Ways(), Hinge: placing.Hinge{Side: placing.HingeLeft, Far: 40}, Step: look.LightStep, Write: measure.Metric},
		write: measure.Metric}
	for _, f := range opts {
		f(&o)
	}
	if o.carriers == nil {
		o.carriers = carriers()
	}
	return o
}

// Limits sets what the eye forgives in fit.
func Limits(l register.Limits) Option { return func(o *options) { o.hand.Limits = l } }

// Hand sets the ways of placing, with the person's own spreads.
func Hand(ways []register.Way) Option { return func(o *options) { o.hand.Ways = ways } }

// HingeAt sets where the hinge of the positioner lies.
func HingeAt(h placing.Hinge) Option { return func(o *options) { o.hand.Hinge = h } }

// Practised sets how the person placed in practice.
func Practised(h register.Habit) Option {
	return func(o *options) {
		if h.N >= register.FewestOwn {
			o.hand.Practised = &register.Way{ID: "practice", Name: "as you practised", Spread: h.Spread, Own: true, From: h.N}
		}
	}
}

// Typeface draws the letters of words; without it no word is drawn, and none is judged.
func Typeface(f layout.Typeface) Option { return func(o *options) { o.face = f } }

// Until stops the work when the context ends: images not worked out by then have
// a Problem, and nothing of them is remembered. Look at the context before using
// such a plan.
func Until(ctx context.Context) Option { return func(o *options) { o.ctx = ctx } }

// Post sets who carries cards; without it those of the file as it comes.
func Post(c []depth.Carrier) Option { return func(o *options) { o.carriers = c } }

// Writing sets how measures are written in sentences.
func Writing(w measure.Writing) Option { return func(o *options) { o.write, o.hand.Write = w, w } }

// Room sets how many pieces may lie drying at once; without it as many as it takes.
func Room(n int) Option { return func(o *options) { o.room = n } }

// Paced sets the person's own times, and from how many steps they are taken.
func Paced(p work.Pace, from int) Option { return func(o *options) { o.pace, o.paced = p, from } }

// Tally leaves the ways to mend that have to be searched for out of the findings: enough where
// they are only counted.
func Tally() Option { return func(o *options) { o.tally = true } }

// Have is a plan of a card as it would be made with the other options, so that it is not made again
// where a sitting asks for it.
func Have(c card.Card, p Plan) Option { return func(o *options) { o.have = &made{c, p} } }

// carriers are those of the file as it comes, read once.
var carriers = sync.OnceValue(depth.Carriers)

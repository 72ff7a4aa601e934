package work

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"ochrestone/core/kit"
)

// Where media want a word, our own defaults.
const (
	solidArea  = 250.0 // a print of so much, mm², and so broad is solid: one strike leaves it blotchy
	solidBroad = 4.0   // mm, twice the area over the length of its outline
	thinCard   = 250.0 // g/m² below which water cockles card
	darkInk    = 35.0  // L* of a black or nearly black
	slowFactor = 3.0   // ink lies so much longer on what does not drink it
	soakedDry  = 15.0  // minutes until card that was soaked bears to be let out of its sheet
)

// medium is what ink is laid on, and over what.
type medium struct {
	paper   string   // cardstock id
	beneath []string // inks that lie there already
	area    float64  // of a print, mm²; 0 where it is none
	edge    float64  // length of its outline, mm
	strikes int
}

// slick reports whether a stock drinks no ink.
func slick(k kit.PaperKind) bool {
	return k == kit.PaperVellum || k == kit.PaperAcetate || k == kit.PaperFoil || k == kit.PaperGlitter
}

// minded adds what is to be minded of an ink on what it is laid on: only what this act has,
// each sentence said where it first matters. On what does not drink ink it lies wet longer.
func (k *maker) minded(a Act, ink string, on medium) Act {
	i, ok := k.Stock.Ink(ink)
	if !ok {
		return a
	}
	add := func(s string) { a.Mind = append(a.Mind, s) }
	paper, known := k.Stock.Paper(on.paper)
	if known && slick(paper.Kind) && i.Kind != kit.Pencil && !i.Heat() {
		a.Minutes *= slowFactor
		add(fmt.Sprintf("%s takes no ink in: it stays wet far longer there and smears. Lay it by, touch edges only.", paper.Name))
	}
	if i.Bleeds || i.Kind == kit.Alcohol {
		add("It goes through card: lay scrap beneath.")
	}
	if i.Kind == kit.Watercolor && known && paper.Kind != kit.PaperWater && paper.GSM > 0 && paper.GSM < thinCard {
		add(fmt.Sprintf("Water cockles %s: little of it, and let it dry flat beneath a weight.", paper.Name))
	}
	if i.Kind == kit.Hybrid {
		add("It reacts with water: keep hands and sheets dry.")
	}
	dark := slices.ContainsFunc(on.beneath, func(id string) bool { return k.tone(id).L < darkInk })
	switch {
	case i.Kind == kit.Pencil && dark:
		add("Pencil dulls the black lines it goes over: draw them again at the end.")
	case i.Kind == kit.Alcohol && dark:
		add("Markers lift some blacks: try the pair on scrap first.")
	}
	if a.Kind == InkAct && !i.Kind.ByHand() {
		add("First touch on scrap: a freshly loaded brush leaves a blot.")
	}
	if a.Kind == PrintAct && on.area > solidArea && 2*on.area/max(on.edge, 1) > solidBroad {
		if on.strikes < 2 {
			// Each solid by its area, so that it is said of every one, and of one in many colours once.
			add(fmt.Sprintf(solidly+" %.0f mm²: one strike leaves it blotchy. Look before anything moves, and strike again.", math.Round(on.area/10)*10))
		}
	}
	return a
}

// mindOnce leaves of every sentence to be minded the first.
//
// What is minded of a solid is said again wherever its stamp is set anew: on every leaf.
func mindOnce(acts []Act) {
	type saying struct {
		what string
		on   Thing
	}
	said := map[saying]bool{}
	for i := range acts {
		fresh := []string{}
		for _, s := range acts[i].Mind {
			as := saying{what: s}
			if strings.HasPrefix(s, solidly) {
				as.on = acts[i].leaf
			}
			if !said[as] {
				fresh = append(fresh, s)
			}
			said[as] = true
		}
		acts[i].Mind = fresh
	}
}

// solidly begins what is minded of a solid.
const solidly = "A solid of"

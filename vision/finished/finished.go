// Package finished reads the picture of a finished image, as a pack's cover or a card
// already made shows it: which of the loose pieces lies where in it, over which, and in
// what colour. It goes by the outlines of the pieces and the edges between colours.
package finished

import (
	"context"
	"fmt"

	"ochrestone/core/colour"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/vision/picture"
)

// Seen is where the picture shows a piece.
type Seen struct {
	Piece int             // index of the piece given
	At    register.Motion // from where it lies to its place in the frame of the largest piece, as that lies
	Sure  float64         // how sure, 0 to 1; 0 when it was not made out, and At then means nothing
	Edge  float64         // share of its edge in view that an edge of the picture follows
	Shown float64         // of its area in view, mm²
	// Colour is what the picture shows of it, black where nothing is in view. It is as
	// the camera took it: good for lighter and darker, not for an ink's name.
	Colour colour.Linear
}

// Result is a picture read.
type Result struct {
	Seen  []Seen  // lowest first, one for each piece; the first is the largest
	Scale float64 // pixels to the mm
	Turn  float64 // by which the picture shows the largest piece turned from how it lies, degrees clockwise
	// Fit is the mean distance, mm, between the edge of the piece that stands out, the best
	// three fifths of it, and that in the picture.
	Fit float64
	// Flat is the picture as seen from straight above, a pixel for each Step mm, whose
	// first lies at Corner, all turned as the piece that stands out lies: Frame brings that
	// to the frame of the largest piece.
	Flat   *Flat
	Corner shape.Point
	Frame  register.Motion
}

// Option changes how a picture is read.
type Option func(*settings)

type settings struct {
	tell func(float64)
}

// Progress is told how far the work is, 0 to 1.
func Progress(f func(share float64)) Option { return func(s *settings) { s.tell = f } }

// What a picture must show to be believed; our own defaults.
const (
	mostPieces = 60
	leastPiece = 0.05 // mm²
	leastShown = 0.35 // of the pieces but the first that must be made out, or one of two
	wellTold   = 1.1  // worth from which other ways for the image to lie are not tried
	leastTells = 0.15 // of the picture's unevenness within the image that the pieces must explain
)

// Read finds the pieces in a picture of the finished image. The outline of the largest, or
// of one nearly as large where that is the colour of the ground, gives scale, turn and
// perspective; each other piece is sought where edges run as its own do, and then all are
// judged together by how evenly coloured they leave what is in view of each. It returns a
// *picture.Problem when the picture shows another image, or none that can be made out, and
// the context's error when that ends.
func Read(ctx context.Context, p *picture.Picture, pieces []shape.Region, opts ...Option) (Result, error) {
	s := settings{tell: func(float64) {}}
	for _, o := range opts {
		o(&s)
	}
	if len(pieces) < 2 {
		return Result{}, &picture.Problem{What: "There is only one piece.", Mend: "Nothing is to be placed: go on without the picture."}
	}
	if len(pieces) > mostPieces {
		return Result{}, &picture.Problem{What: fmt.Sprintf("There are %d pieces; up to %d are found in a picture.", len(pieces), mostPieces), Mend: "Leave some out, or go on without the picture."}
	}
	for i, g := range pieces {
		if g.Filled().Area() < leastPiece {
			return Result{}, &picture.Problem{What: fmt.Sprintf("Piece %d has next to no area.", i+1), Mend: "Leave it out."}
		}
	}
	lies, err := silhouettes(p, pieces)
	if err != nil {
		return Result{}, err
	}
	s.tell(0.1)
	var best *scene
	for i, l := range lies {
		sc := newScene(p, pieces, l)
		if err := sc.read(ctx, func(f float64) { s.tell(0.1 + 0.9*(float64(i)+f)/float64(len(lies))) }); err != nil {
			return Result{}, err
		}
		if best == nil || sc.worth > best.worth {
			best = sc
		}
		if best.worth > wellTold {
			break
		}
	}
	s.tell(1)
	return best.result()
}

func unlike(why string) *picture.Problem {
	return &picture.Problem{What: "The picture does not show these pieces put together: " + why + ".", Mend: "Use a picture of this very image, finished, taken from straight above on plain ground with all of it in view; or go on without one."}
}

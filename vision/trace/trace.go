// Package trace turns a picture of cut pieces, prints or a stencil into
// outlines in millimetres.
//
// Edges are found in linear light, where the half level between a piece and
// its ground lies on the true edge whatever the blur of the lens, and at a
// half level of each piece's own, taken beside every stretch of its edge.
// Pixel (x, y) is a square whose centre stands at (x+0.5, y+0.5).
package trace

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"sync"
	"sync/atomic"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/core/together"
	"ochrestone/vision/picture"
)

// Scale maps pixels to millimetres.
type Scale struct {
	PerMM float64                        // pixels to the millimetre, for sizes of things looked for
	Place func(x, y float64) shape.Point // where a point of the picture lies, mm
	Field []shape.Point                  // corners, in pixels, of the part looked at (convex); empty for all
}

// DPI is the scale of a scan.
func DPI(dpi float64) Scale {
	k := 25.4 / dpi
	return Scale{PerMM: 1 / k, Place: func(x, y float64) shape.Point { return shape.Point{X: x * k, Y: y * k} }}
}

// Ground says what the pieces lie on.
type Ground int

// Grounds.
const (
	AnyGround   Ground = iota
	DarkGround         // light or coloured pieces on a dark sheet
	LightGround        // dark pieces on a light sheet
)

// Piece is one outline found.
type Piece struct {
	Region  shape.Region  // mm
	Colour  colour.Linear // its own, the middle of what it shows
	Cut     bool          // runs over the edge of the picture
	Touches bool          // may be two pieces that touch
	Sure    float64       // mm: 95 of 100 points of its outline lie as near the card's edge, 95 times in 100; 0 for prints
	Doubt   []shape.Ring  // stretches of its outline that are in doubt, as open lines, mm
}

// Result is what was found in a picture.
type Result struct {
	Pieces []Piece // largest first
	Ground colour.Linear
	Noise  float64 // standard deviation on the sheet, sRGB levels
	Notes  []string
}

// Option changes what is looked for.
type Option func(*finder)

// Progress is told how far the work is, 0 to 1, and what is being done.
func Progress(f func(share float64, what string)) Option { return func(t *finder) { t.tell = f } }

// On says what the pieces lie on; another ground is then refused.
func On(g Ground) Option { return func(t *finder) { t.want = g } }

// Prints looks for ink on paper rather than cut pieces: small dots count, and
// blotches in a solid are closed.
func Prints() Option { return func(t *finder) { t.prints = true } }

// Plate looks for a stencil: the largest piece is the plate itself.
func Plate() Option { return func(t *finder) { t.plate = true } }

// Sizes of what is looked for, in mm and mm².
const (
	leastPiece  = 1.0  // area of the least piece
	leastPrint  = 0.12 // area of the least printed dot
	leastHole   = 0.25 // area of the least hole of a piece
	leastBlotch = 0.5  // area of the least gap in a print that is not a blotch
	leastExtent = 1.5  // length of the least piece
)

// mostBlobs is how many things on a sheet are followed.
const mostBlobs = 1500

// finder is the work on one picture.
type finder struct {
	pic    *picture.Picture
	scale  Scale
	want   Ground
	prints bool
	plate  bool // a stencil: its openings are what counts
	within bool // the picture was cropped to a sheet within a larger one
	rim    shape.Region
	tell   func(float64, string)
	busy   *atomic.Int64 // points of outlines followed so far

	ground *ground
	casts  []shadow // that may lie beside a piece: none on a dark sheet, where they do not show
	diff   []uint8  // greatest difference of a channel from the ground, sRGB levels
	level  uint8    // difference past which a pixel is not ground
}

// Find finds the pieces in a picture.
func Find(ctx context.Context, pic *picture.Picture, scale Scale, opts ...Option) (Result, error) {
	t := &finder{pic: pic, scale: scale, tell: func(float64, string) {}, busy: new(atomic.Int64)}
	for _, o := range opts {
		o(t)
	}
	t.tell(0.05, "Looking at the sheet")
	if err := t.findGround(); err != nil {
		return Result{}, err
	}
	if t.pale() {
		t.casts = shadows(t.scale.PerMM)
	}
	t.tell(0.2, "Telling pieces from the sheet")
	blobs := t.blobs()
	if len(blobs) > mostBlobs {
		return Result{}, &picture.Problem{What: fmt.Sprintf("The picture is full of specks: %d of them stand off the sheet.", len(blobs)), Mend: "Clean the glass, lay a plain sheet, or scan with less sharpening."}
	}
	if err := ctx.Err(); err != nil {
		return Result{}, fmt.Errorf("trace: %w", err)
	}
	found := make([][]draft, len(blobs))
	var mu sync.Mutex
	done := 0
	together.By(len(blobs), func(i int) {
		if ctx.Err() != nil || t.busy.Load() > mostPoints {
			return
		}
		found[i] = t.outline(blobs[i])
		mu.Lock()
		defer mu.Unlock()
		done++
		t.tell(0.3+0.4*float64(done)/float64(len(blobs)), fmt.Sprintf("Drawing outline %d of %d", done, len(blobs)))
	})
	if err := ctx.Err(); err != nil {
		return Result{}, fmt.Errorf("trace: %w", err)
	}
	if t.busy.Load() > mostPoints {
		return Result{}, &picture.Problem{What: "The picture is full of fine detail without end, as noise or a print has it.", Mend: "Lay the pieces on a plain sheet, clean the glass, and scan in colour with little sharpening."}
	}
	res := Result{Ground: t.ground.colour(), Noise: t.ground.sigma}
	drafts := slices.Concat(found...)
	if t.mayHoldSheet(drafts) {
		if sheet, ok := t.sheetWithin(t.made(drafts, t.asDrawn(drafts))); ok {
			t.tell(0.3, "Looking at the sheet in the picture")
			return t.findOn(ctx, sheet, opts)
		}
	}
	edges := t.edges(ctx, drafts)
	if err := ctx.Err(); err != nil {
		return Result{}, fmt.Errorf("trace: %w", err)
	}
	res.Pieces = t.made(drafts, edges)
	if len(res.Pieces) == 0 {
		return Result{}, &picture.Problem{What: "No pieces can be told from the sheet.", Mend: "Lay light pieces on a dark sheet, or dark pieces on a light one, and close the lid."}
	}
	t.atRim(res.Pieces)
	res.Notes = append(t.doubts(res.Pieces), t.hints(res.Pieces)...)
	res.Notes = append(res.Notes, t.unseenCore(edges)...)
	t.tell(1, "Done")
	return res, nil
}

// made are the pieces of drafts whose lines lie where their edges say, largest first.
func (t *finder) made(drafts []draft, edges []edge) (out []Piece) {
	pieces := make([]Piece, len(drafts))
	together.By(len(drafts), func(i int) {
		if p, ok := drafts[i].p.piece(edges[i].lines); ok {
			p.Cut = drafts[i].cut
			p.Sure, p.Doubt = t.sureness(edges[i])
			pieces[i] = p
		}
	})
	for _, p := range pieces {
		if !p.Region.Empty() {
			out = append(out, p)
		}
	}
	slices.SortStableFunc(out, func(a, b Piece) int { return cmp.Compare(b.Region.Area(), a.Region.Area()) })
	return out
}

func count(n int, one, many string) string {
	if n == 1 {
		return "One " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

// px turns mm into pixels.
func (t *finder) px(mm float64) float64 { return mm * t.scale.PerMM }

// area turns mm² into pixels.
func (t *finder) area(mm2 float64) float64 { return mm2 * t.scale.PerMM * t.scale.PerMM }

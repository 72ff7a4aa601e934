package sheet

import (
	"image"
	"image/color"
	"math"

	"github.com/tdewolff/canvas"
	"golang.org/x/image/vector"
)

// pixels draws a page as a picture: filled and stroked paths in plain colours, which is all that
// is drawn of a front.
type pixels struct {
	img   *image.RGBA
	perMM float64
	z     *vector.Rasterizer
}

// drawn is a page as a picture of a resolution.
func drawn(c *canvas.Canvas, dpi float64) *image.RGBA {
	perMM := dpi / 25.4
	w, h := int(math.Round(c.W*perMM)), int(math.Round(c.H*perMM))
	p := &pixels{image.NewRGBA(image.Rect(0, 0, w, h)), perMM, vector.NewRasterizer(w, h)}
	c.RenderTo(p)
	return p.img
}

// Size is that of the page, mm.
func (p *pixels) Size() (w, h float64) {
	return float64(p.img.Rect.Dx()) / p.perMM, float64(p.img.Rect.Dy()) / p.perMM
}

// RenderPath fills a path, and draws along it, as its style says.
func (p *pixels) RenderPath(path *canvas.Path, style canvas.Style, m canvas.Matrix) {
	if style.HasFill() && style.Fill.IsColor() {
		p.fill(path.Copy().Transform(m), style.Fill.Color)
	}
	if style.HasStroke() && style.Stroke.IsColor() {
		line := path
		if len(style.Dashes) > 0 {
			from, dashes := canvas.ScaleDash(style.StrokeWidth, style.DashOffset, style.Dashes)
			line = line.Dash(from, dashes...)
		}
		line = line.Stroke(style.StrokeWidth, style.StrokeCapper, style.StrokeJoiner, canvas.PixelTolerance/p.perMM)
		p.fill(line.Transform(m), style.Stroke.Color)
	}
}

func (p *pixels) fill(path *canvas.Path, c color.RGBA) {
	b := path.FastBounds()
	h := p.img.Rect.Dy()
	box := image.Rect(int(b.X0*p.perMM)-1, h-int(b.Y1*p.perMM)-2, int(b.X1*p.perMM)+2, h-int(b.Y0*p.perMM)+2).Intersect(p.img.Rect)
	if box.Empty() {
		return
	}
	// Only as much is looked at as the path may take.
	p.z.Reset(box.Dx(), box.Dy())
	at := canvas.Identity.Translate(-float64(box.Min.X)/p.perMM, float64(box.Max.Y-h)/p.perMM)
	path.Transform(at).ToVectorRasterizer(p.z, canvas.DPMM(p.perMM))
	p.z.Draw(p.img, box, image.NewUniform(c), image.Point{})
}

// RenderText draws words as the paths of their letters.
func (p *pixels) RenderText(text *canvas.Text, m canvas.Matrix) {
	text.RenderAsPath(p, m, canvas.DPMM(p.perMM))
}

// RenderImage draws nothing: there are no pictures on a front.
func (p *pixels) RenderImage(image.Image, canvas.Matrix) {}

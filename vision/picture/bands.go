package picture

import (
	"bytes"
	"compress/zlib"
	"encoding/binary"
	"errors"
	"io"
	"math"
)

// reduceAbove is the number of pixels past which a picture is read at a fraction
// of its resolution: A4 at 600 dots to the inch has 35 million.
const reduceAbove = 40_000_000

// reduction is the whole factor by which a picture of so many pixels is reduced.
func reduction(w, h int) int {
	return int(math.Ceil(math.Sqrt(float64(w) * float64(h) / reduceAbove)))
}

// sink takes the rows of a picture and averages squares of by by pixels.
type sink struct {
	p    *Picture
	by   int
	rows int
	sum  []uint32
	n    []uint32
}

func newSink(w, h, by int) *sink {
	p := &Picture{W: (w + by - 1) / by, H: (h + by - 1) / by}
	p.Pix = make([]uint8, 3*p.W*p.H)
	s := &sink{p: p, by: by}
	if by > 1 {
		s.sum, s.n = make([]uint32, 3*p.W), make([]uint32, p.W)
	}
	return s
}

// row takes the next row, three bytes a pixel. Averages are of the values as they
// stand; over so small a square that differs little from those of light.
func (s *sink) row(rgb []uint8) {
	if s.by == 1 {
		copy(s.p.Pix[3*s.p.W*s.rows:], rgb)
		s.rows++
		return
	}
	for x := range len(rgb) / 3 {
		i := x / s.by
		s.sum[3*i] += uint32(rgb[3*x])
		s.sum[3*i+1] += uint32(rgb[3*x+1])
		s.sum[3*i+2] += uint32(rgb[3*x+2])
		s.n[i]++
	}
	if s.rows++; s.rows%s.by == 0 {
		s.flush()
	}
}

func (s *sink) flush() {
	y := (s.rows - 1) / s.by
	out := s.p.Pix[3*s.p.W*y:]
	for i, n := range s.n {
		for c := range 3 {
			out[3*i+c] = uint8((s.sum[3*i+c] + n/2) / n)
			s.sum[3*i+c] = 0
		}
		s.n[i] = 0
	}
}

func (s *sink) done() *Picture {
	if s.by > 1 && s.rows%s.by != 0 {
		s.flush()
	}
	return s.p
}

var errPNG = errors.New("the PNG file breaks off or is damaged")

// pngHead is what the IHDR chunk says (PNG specification, third edition, 11.2.1).
type pngHead struct {
	w, h              int
	depth, kind, lace int
}

// idat joins the data of the IDAT chunks.
type idat struct {
	data []byte // from the next chunk on
	left []byte
}

func (d *idat) Read(b []byte) (int, error) {
	for len(d.left) == 0 {
		if len(d.data) < 12 {
			return 0, io.EOF
		}
		n := int(binary.BigEndian.Uint32(d.data))
		if n < 0 || n > len(d.data)-12 {
			return 0, io.ErrUnexpectedEOF
		}
		name := string(d.data[4:8])
		body := d.data[8 : 8+n]
		d.data = d.data[12+n:]
		if name == "IEND" {
			return 0, io.EOF
		}
		if name == "IDAT" {
			d.left = body
		}
	}
	n := copy(b, d.left)
	d.left = d.left[n:]
	return n, nil
}

// decodePNG reads a PNG row by row, so that no more than the reduced picture is
// ever in memory. ok is false for what it leaves to the general decoder: pictures
// interlaced by Adam7.
func decodePNG(data []byte, by int) (p *Picture, deep, ok bool, err error) {
	var head pngHead
	var palette, clear []byte
	at := 8
	for {
		if at+12 > len(data) {
			return nil, false, false, errPNG
		}
		n := int(binary.BigEndian.Uint32(data[at:]))
		if n < 0 || n > len(data)-at-12 {
			return nil, false, false, errPNG
		}
		body := data[at+8 : at+8+n]
		name := string(data[at+4 : at+8])
		if name == "IDAT" {
			break
		}
		switch {
		case name == "IHDR" && n == 13:
			head = pngHead{int(binary.BigEndian.Uint32(body)), int(binary.BigEndian.Uint32(body[4:])), int(body[8]), int(body[9]), int(body[12])}
		case name == "PLTE":
			palette = body
		case name == "tRNS":
			clear = body
		}
		at += 12 + n
	}
	channels := map[int]int{0: 1, 2: 3, 3: 1, 4: 2, 6: 4}[head.kind]
	if channels == 0 || head.lace != 0 {
		return nil, false, false, nil
	}
	z, err := zlib.NewReader(&idat{data: data[at:]})
	if err != nil {
		return nil, false, false, errPNG
	}
	defer z.Close()
	bpp := max(1, channels*head.depth/8)
	stride := (head.w*channels*head.depth + 7) / 8
	cur, prev := make([]byte, 1+stride), make([]byte, 1+stride)
	rgb := make([]uint8, 3*head.w)
	out := newSink(head.w, head.h, by)
	for range head.h {
		if _, err := io.ReadFull(z, cur); err != nil {
			return nil, false, false, errPNG
		}
		if !unfilter(cur[0], cur[1:], prev[1:], bpp) {
			return nil, false, false, errPNG
		}
		spread(head, cur[1:], palette, clear, rgb)
		out.row(rgb)
		cur, prev = prev, cur
	}
	return out.done(), head.depth == 16, true, nil
}

// unfilter undoes the filter of a row (PNG specification, third edition, 9.2).
func unfilter(kind byte, cur, prev []byte, bpp int) bool {
	switch kind {
	case 0:
	case 1:
		for i := bpp; i < len(cur); i++ {
			cur[i] += cur[i-bpp]
		}
	case 2:
		for i, v := range prev {
			cur[i] += v
		}
	case 3:
		for i := range cur {
			left := 0
			if i >= bpp {
				left = int(cur[i-bpp])
			}
			cur[i] += byte((left + int(prev[i])) / 2)
		}
	case 4:
		for i := range cur {
			a, b, c := 0, int(prev[i]), 0
			if i >= bpp {
				a, c = int(cur[i-bpp]), int(prev[i-bpp])
			}
			pa, pb, pc := b-c, a-c, a+b-2*c
			pa, pb, pc = max(pa, -pa), max(pb, -pb), max(pc, -pc)
			switch {
			case pa <= pb && pa <= pc:
				cur[i] += byte(a)
			case pb <= pc:
				cur[i] += byte(b)
			default:
				cur[i] += byte(c)
			}
		}
	default:
		return false
	}
	return true
}

// spread turns a row into three bytes a pixel; what is clear counts as white.
func spread(h pngHead, row, palette, clear []byte, rgb []uint8) {
	step := h.depth / 8 // bytes a channel
	over := func(v, a uint8) uint8 { return uint8((uint32(v)*uint32(a)+127)/255 + 255 - uint32(a)) }
	// small reads value x of fewer than eight bits.
	small := func(x int) int {
		bit := x * h.depth
		return int(row[bit/8]>>(8-h.depth-bit%8)) & (1<<h.depth - 1)
	}
	switch { // the common kinds quickly
	case h.kind == 2 && h.depth == 8 && clear == nil:
		copy(rgb, row)
		return
	case h.kind == 6 && h.depth == 16:
		for x, i := 0, 0; x < h.w; x, i = x+1, i+8 {
			if row[i+6] != 255 {
				a := row[i+6]
				rgb[3*x], rgb[3*x+1], rgb[3*x+2] = over(row[i], a), over(row[i+2], a), over(row[i+4], a)
				continue
			}
			rgb[3*x], rgb[3*x+1], rgb[3*x+2] = row[i], row[i+2], row[i+4]
		}
		return
	}
	for x := range h.w {
		var r, g, b uint8
		a := uint8(255)
		switch {
		case h.kind == 3:
			i := 0
			if h.depth == 8 {
				i = int(row[x])
			} else {
				i = small(x)
			}
			if 3*i+2 < len(palette) {
				r, g, b = palette[3*i], palette[3*i+1], palette[3*i+2]
			}
			if i < len(clear) {
				a = clear[i]
			}
		case h.depth < 8:
			v := small(x)
			r = uint8(v * 255 / (1<<h.depth - 1))
			g, b = r, r
			if len(clear) >= 2 && v == int(binary.BigEndian.Uint16(clear)) {
				a = 0
			}
		case h.kind == 0 || h.kind == 4:
			n := 1
			if h.kind == 4 {
				n = 2
			}
			at := x * n * step
			r = row[at]
			g, b = r, r
			if n == 2 {
				a = row[at+step]
			} else if len(clear) >= 2 && bytes.Equal(row[at:at+step], clear[2-step:2]) {
				a = 0
			}
		default:
			n := 3
			if h.kind == 6 {
				n = 4
			}
			at := x * n * step
			r, g, b = row[at], row[at+step], row[at+2*step]
			if n == 4 {
				a = row[at+3*step]
			} else if len(clear) >= 6 {
				same := true
				for c := range 3 {
					same = same && bytes.Equal(row[at+c*step:at+(c+1)*step], clear[2*c+2-step:2*c+2])
				}
				if same {
					a = 0
				}
			}
		}
		if a != 255 {
			r, g, b = over(r, a), over(g, a), over(b, a)
		}
		rgb[3*x], rgb[3*x+1], rgb[3*x+2] = r, g, b
	}
}

// square resamples a picture whose dots lie closer one way to as many to the inch
// both ways, the fewer of the two, by the share of each dot that falls in.
func (p *Picture) square(across, down float64) {
	w, h := p.W, p.H
	if across > down {
		w = int(math.Round(float64(p.W) * down / across))
	} else {
		h = int(math.Round(float64(p.H) * across / down))
	}
	w, h = max(1, w), max(1, h)
	out := make([]uint8, 3*w*h)
	if h != p.H {
		k := float64(p.H) / float64(h)
		for y := range h {
			shares(float64(y)*k, float64(y+1)*k, p.H, func(from int, s []float64) {
				for i := range 3 * p.W {
					var v float64
					for j, q := range s {
						v += q * float64(p.Pix[(from+j)*3*p.W+i])
					}
					out[y*3*w+i] = uint8(v + 0.5)
				}
			})
		}
	} else {
		k := float64(p.W) / float64(w)
		for x := range w {
			shares(float64(x)*k, float64(x+1)*k, p.W, func(from int, s []float64) {
				for y := range p.H {
					for c := range 3 {
						var v float64
						for j, q := range s {
							v += q * float64(p.Pix[3*(y*p.W+from+j)+c])
						}
						out[3*(y*w+x)+c] = uint8(v + 0.5)
					}
				}
			})
		}
	}
	p.W, p.H, p.Pix = w, h, out
}

// shares gives the share of each dot that lies between two places of a row of n.
func shares(lo, hi float64, n int, f func(from int, share []float64)) {
	from, to := int(lo), min(n, int(math.Ceil(hi-1e-9)))
	s := make([]float64, to-from)
	for i := range s {
		s[i] = (math.Min(hi, float64(from+i+1)) - math.Max(lo, float64(from+i))) / (hi - lo)
	}
	f(from, s)
}

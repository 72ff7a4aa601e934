package depth

import (
	"encoding/json"
	"math"

	"ochrestone/core/bend"
	"ochrestone/core/build"
	"ochrestone/core/memory"
	"ochrestone/core/shape"
)

// Memory remembers pads that were proposed and how parts came to lie, by all they depend
// on. It is safe for use by several goroutines.
type Memory struct {
	pads *memory.Of[[32]byte, []Support]
	lies *memory.Of[mark, lying]
}

// For how many parts pads and lies are remembered.
const (
	mostPads = 4000
	mostLies = 4000
)

// NewMemory returns an empty memory.
func NewMemory() *Memory {
	return &Memory{memory.New[[32]byte, []Support](mostPads), memory.New[mark, lying](mostLies)}
}

// lying is how a part came to lie.
type lying struct {
	under    Plane
	bent     bend.Field
	supports []Support
	uneven   *Uneven
	off      float64
	offAt    shape.Point
}

// mark is a fingerprint of numbers: two of 64 bits, by FNV-1a with different beginnings.
type mark [2]uint64

func newMark() mark { return mark{14695981039346656037, 0x9e3779b97f4a7c15} }

func (m *mark) bits(v uint64) {
	const prime = 1099511628211
	m[0] = (m[0] ^ v) * prime
	m[0] ^= m[0] >> 29
	m[1] = (m[1] ^ (v>>32 | v<<32)) * prime
	m[1] ^= m[1] >> 31
}

func (m *mark) number(vs ...float64) {
	for _, v := range vs {
		m.bits(math.Float64bits(v))
	}
}

func (m *mark) mark(o mark) {
	m.bits(o[0])
	m.bits(o[1])
}

func (m *mark) region(g shape.Region) {
	for _, r := range g.Rings() {
		m.bits(uint64(len(r)))
		for _, p := range r {
			m.number(p.X, p.Y)
		}
	}
}

// holds marks what holds a part. It reports whether that could be.
func (m *mark) holds(hs []build.Hold) bool {
	for _, h := range hs {
		doc, err := json.Marshal(h.Bond)
		if err != nil {
			return false
		}
		m.number(h.Height, h.W, h.H, bears(h))
		if h.Flap != nil {
			m.number(h.Flap.Depth, float64(len(h.Flap.Side)))
		}
		for _, text := range [][]byte{[]byte(h.Kind), doc} {
			m.bits(uint64(len(text)))
			for _, c := range text {
				m.bits(uint64(c))
			}
		}
	}
	return true
}

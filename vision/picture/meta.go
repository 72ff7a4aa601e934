package picture

import (
	"bytes"
	"encoding/binary"
	"math"
)

// meta is what a file says about its picture.
type meta struct {
	dpi         float64 // across
	down        float64
	uneven      bool // the two differ
	compression int  // of a TIFF file
	strips      int  // in how many the TIFF keeps its picture
	camera      bool // it tells how it was exposed
	orientation int  // 1 to 8; 0 when not said
}

func (m *meta) set(x, y float64) {
	if x <= 0 || y <= 0 || math.IsInf(x, 0) || math.IsNaN(x) || math.IsInf(y, 0) || math.IsNaN(y) {
		return
	}
	m.dpi, m.down, m.uneven = x, y, math.Abs(x-y) > 0.01*x
}

func readMeta(data []byte, kind string) (m meta) {
	switch kind {
	case "png":
		m.png(data)
	case "jpeg":
		m.jpeg(data)
	case "tiff":
		m.tiff(data)
	}
	return m
}

// inch is the length of an inch in metres and centimetres.
const (
	inchM  = 0.0254
	inchCM = 2.54
)

// png reads the pHYs chunk (PNG specification, third edition, 11.3.4.3): dots
// to the unit across and down, and 1 where the unit is the metre.
func (m *meta) png(data []byte) {
	for at := 8; at+12 <= len(data); {
		n := int(binary.BigEndian.Uint32(data[at:]))
		if n < 0 || at+12+n > len(data) {
			return
		}
		body := data[at+8 : at+8+n]
		switch string(data[at+4 : at+8]) {
		case "pHYs":
			if n == 9 && body[8] == 1 {
				m.set(float64(binary.BigEndian.Uint32(body))*inchM, float64(binary.BigEndian.Uint32(body[4:]))*inchM)
			}
		case "eXIf":
			m.tiff(body)
		case "IDAT":
			return
		}
		at += 12 + n
	}
}

// jpeg reads the density of the JFIF header (ITU-T T.871, 10.1) and the EXIF
// data (CIPA DC-008), which wins.
func (m *meta) jpeg(data []byte) {
	for at := 2; at+4 <= len(data) && data[at] == 0xff; {
		mark := data[at+1]
		n := int(binary.BigEndian.Uint16(data[at+2:]))
		if mark == 0xda || n < 2 || at+2+n > len(data) {
			return
		}
		body := data[at+4 : at+2+n]
		switch {
		case mark == 0xe0 && len(body) >= 12 && bytes.HasPrefix(body, []byte("JFIF\x00")):
			x, y := float64(binary.BigEndian.Uint16(body[8:])), float64(binary.BigEndian.Uint16(body[10:]))
			switch body[7] {
			case 1:
				m.set(x, y)
			case 2:
				m.set(x*inchCM, y*inchCM)
			}
		case mark == 0xe1 && bytes.HasPrefix(body, []byte("Exif\x00\x00")):
			m.tiff(body[6:])
		}
		at += 2 + n
	}
}

// Tags of the TIFF 6.0 specification, section 8.
const (
	tagCompression = 0x0103
	tagStrips      = 0x0111
	tagTiles       = 0x0144
	tagOrientation = 0x0112
	tagXResolution = 0x011a
	tagYResolution = 0x011b
	tagUnit        = 0x0128
	tagExif        = 0x8769 // CIPA DC-008, 4.6.3: where exposure and lens are told
)

// tiff reads the first directory of a TIFF file or EXIF block.
func (m *meta) tiff(data []byte) {
	if len(data) < 8 {
		return
	}
	var bo binary.ByteOrder = binary.LittleEndian
	if data[0] == 'M' {
		bo = binary.BigEndian
	}
	at := int64(bo.Uint32(data[4:]))
	if at < 8 || at+2 > int64(len(data)) {
		return
	}
	n := int(bo.Uint16(data[at:]))
	var x, y float64
	unit := 2
	for i := range n {
		e := at + 2 + int64(i)*12
		if e+12 > int64(len(data)) {
			return
		}
		value := data[e+8 : e+12]
		rational := func() float64 {
			o := int64(bo.Uint32(value))
			if o < 8 || o+8 > int64(len(data)) {
				return 0
			}
			return float64(bo.Uint32(data[o:])) / float64(bo.Uint32(data[o+4:]))
		}
		switch bo.Uint16(data[e:]) {
		case tagExif:
			m.camera = true
		case tagStrips, tagTiles:
			m.strips = int(min(1<<20, bo.Uint32(data[e+4:])))
		case tagCompression:
			m.compression = int(bo.Uint16(value))
		case tagOrientation:
			m.orientation = int(bo.Uint16(value))
		case tagXResolution:
			x = rational()
		case tagYResolution:
			y = rational()
		case tagUnit:
			unit = int(bo.Uint16(value))
		}
	}
	switch unit {
	case 2:
		m.set(x, y)
	case 3:
		m.set(x*inchCM, y*inchCM)
	}
}

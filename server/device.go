package server

import (
	"net/http"
	"strconv"

	"github.com/gin-gonic/gin"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/demo/sim"
	"ochrestone/store"
	"ochrestone/vision/mat"
)

// device serves pictures of the simulated scanner and camera, in the demo.
func (s *Server) device(r *gin.Engine) {
	if !s.demo {
		return
	}
	r.GET("/api/device/sets", func(c *gin.Context) {
		sets, err := s.deviceSets(c)
		if err != nil {
			refuse(c, err)
			return
		}
		type name struct {
			ID   string      `json:"id"`
			Name string      `json:"name"`
			Kind kit.SetKind `json:"kind"`
		}
		out := []name{}
		for _, set := range sets {
			out = append(out, name{set.ID, set.Name, set.Kind})
		}
		c.JSON(http.StatusOK, out)
	})
	r.GET("/api/device/proof", s.simulatedProof)
	r.GET("/api/device/card", func(c *gin.Context) {
		img, err := sim.PNG(sim.BankCard().Scan(deviceDPI, sim.Plain(), 1), deviceDPI)
		if err != nil {
			refuse(c, err)
			return
		}
		c.Data(http.StatusOK, http.DetectContentType(img), img)
	})
	r.GET("/api/device/:as", func(c *gin.Context) {
		sets, err := s.deviceSets(c)
		if err != nil {
			refuse(c, err)
			return
		}
		seed, _ := strconv.ParseUint(c.Query("seed"), 10, 32)
		for _, set := range sets {
			if set.ID == c.Query("set") {
				img, err := shoot(c.Param("as"), set, seed)
				if err != nil {
					refuse(c, kit.Problem{Path: "set", What: err.Error()})
					return
				}
				c.Data(http.StatusOK, http.DetectContentType(img), img)
				return
			}
		}
		refuse(c, store.ErrNotFound)
	})
}

// deviceSets are the sets that lie beside the device: first those that are in
// nobody's stores.
func (s *Server) deviceSets(c *gin.Context) ([]kit.Set, error) {
	out, err := sim.Sets()
	if err != nil {
		return nil, err
	}
	k, err := s.store.Kit(c.Request.Context())
	return append(out, k.Sets...), err
}

// deviceDPI is the resolution of the simulated scanner.
const deviceDPI = 300

// shoot takes a picture of a set: its pieces scanned on black, photographed on
// the mat, stamped on white, as a stencil, or put together.
func shoot(as string, set kit.Set, seed uint64) ([]byte, error) {
	g := sim.Plain()
	switch as {
	case "mat":
		l := mat.For(measure.A4, true)
		laid, err := sim.Lay(set, l.Field.W(), l.Field.H(), 12, seed)
		if err != nil {
			return nil, err
		}
		b, _ := sim.OnMat(l, laid, sim.Pieces(laid, true))
		cam := sim.Phone()
		cam.W, cam.H = cam.W*3/4, cam.H*3/4 // seven million pixels are enough to show it
		cam.Tilt, cam.Lean, cam.Roll, cam.Bend, cam.Fill = 9, float64(40*seed), 2, 0.012, 0.84
		return sim.JPEG(b.Photo(cam, g, seed), 72, 90)
	case "stamps":
		inks := []colour.Linear{{0.75, 0.52, 0.46}, {0.48, 0.17, 0.14}, {0.13, 0.27, 0.42}, {0.02, 0.02, 0.025}, {0.2, 0.36, 0.13}}
		b, _, err := sim.Stamped(set, inks, 210, 200, 4, seed)
		if err != nil {
			return nil, err
		}
		return sim.PNG(b.Scan(deviceDPI, g, seed), deviceDPI)
	case "finished":
		laid, err := sim.Lay(set, 280, 400, 0, seed)
		if err != nil {
			return nil, err
		}
		b, _, err := sim.Finished(set, laid, seed)
		if err != nil {
			return nil, err
		}
		cam, g := sim.Held(seed)
		return sim.JPEG(b.Photo(cam, g, seed), 72, 88)
	case "stencil":
		return sim.PNG(sim.Stencil(set, 10).Scan(deviceDPI, g, seed), deviceDPI)
	}
	laid, err := sim.Lay(set, 210, 230, 12, seed)
	if err != nil {
		return nil, err
	}
	return sim.PNG(sim.Bench{W: 210, H: 230, Sheet: sim.Black, Items: sim.Pieces(laid, true)}.Scan(deviceDPI, g, seed), deviceDPI)
}

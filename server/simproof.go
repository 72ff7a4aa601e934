package server

import (
	"fmt"
	"net/http"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/placing"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/vision/mat"
)

// simulatedProof serves a picture of proofs from the simulated scanner or camera,
// in the demo: off by up to 1 mm and 1.5°, as the seed has it. With what the paper
// was moved by for each layer, it is the next print of the same press. A sheet is
// a run of six on which one layer's paper slips a little further each time.
func (s *Server) simulatedProof(c *gin.Context) {
	ctx := c.Request.Context()
	seed, _ := strconv.ParseUint(c.DefaultQuery("seed", "1"), 10, 32)
	v, k, err := s.cardAndKit(ctx, c.Query("card"))
	if err != nil {
		refuse(c, err)
		return
	}
	prints, paper, err := s.prints(ctx, v.Card, k, c.Query("motif"), c.Query("colourway"))
	if err == nil && len(prints) == 0 {
		err = kit.Problem{Path: "motif", What: "this image has no printed layer with an ink"}
	}
	if err != nil {
		refuse(c, err)
		return
	}
	layers := make([]sim.Layer, len(prints))
	for i, p := range prints {
		layers[i] = sim.Layer{Region: p.Region, Film: p.Film}
	}
	corrections, err := corrected(prints, c.QueryArray("moved"))
	if err != nil {
		refuse(c, err)
		return
	}
	g := sim.Plain()
	g.Dust = 0
	var img []byte
	switch c.Query("as") {
	case "mat":
		b, _ := sim.Proof(layers, paper, 1, 1.5, 3, seed, corrections...)
		cam := sim.Phone()
		cam.W, cam.H = cam.W*3/4, cam.H*3/4
		cam.Tilt, cam.Lean, cam.Roll, cam.Bend = 8, float64(40*seed), 2, 0.01
		img, err = sim.JPEG(sim.ProofOnMat(mat.For(measure.A4, true), b, 3).Photo(cam, g, seed), 72, 92)
	case "run":
		const copies = 6
		var sheets []sim.Bench
		last := len(layers) - 1
		for i := range copies {
			slip := make([]register.Motion, len(layers))
			copy(slip, corrections)
			slip[last] = register.Motion{Move: shape.Point{X: 0.12 * float64(i), Y: 0.01 * float64(i%2)}}.After(slip[last])
			b, _ := sim.Proof(layers, paper, 0.15, 0.2, 2, seed*100+uint64(i), slip...)
			sheets = append(sheets, b)
		}
		img, err = sim.PNG(sim.Together(sheets, 3).Scan(deviceDPI, g, seed), deviceDPI)
	default:
		b, _ := sim.Proof(layers, paper, 1, 1.5, 3, seed, corrections...)
		img, err = sim.PNG(b.Scan(deviceDPI, g, seed), deviceDPI)
	}
	if err != nil {
		refuse(c, err)
		return
	}
	c.Data(http.StatusOK, http.DetectContentType(img), img)
}

// corrected reads how the paper was moved for the strikes of layers, each as "id
// right down clockwise". The paper moved for a strike takes the print the other
// way against it.
func corrected(prints []placing.Print, moved []string) ([]register.Motion, error) {
	out := make([]register.Motion, len(prints))
	for _, said := range moved {
		var x, y, turn float64
		id, numbers, _ := strings.Cut(said, " ")
		if _, err := fmt.Sscanf(numbers, "%g %g %g", &x, &y, &turn); err != nil {
			return nil, kit.Problem{Path: "moved", What: "give a layer and how the paper was moved: id, mm right, mm down, degrees clockwise"}
		}
		for i, p := range prints {
			if p.Layer == id {
				mid := p.Region.Centroid()
				m := register.Motion{Turn: turn}
				m.Move = mid.Sub(m.Point(mid)).Add(shape.Point{X: x, Y: y})
				out[i] = m.Inverse()
			}
		}
	}
	return out, nil
}

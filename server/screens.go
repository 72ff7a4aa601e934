package server

import (
	"cmp"
	"context"
	"crypto/rand"
	"crypto/subtle"
	"encoding/hex"
	"errors"
	"fmt"
	"net"
	"net/http"
	"net/netip"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"golang.org/x/time/rate"

	"ochrestone/core/kit"
	"ochrestone/store"
)

// screens lets other devices of the house in: off until turned on, one device for each
// code, each until it is taken back. Only while it is on does the program listen beyond
// this machine.
type screens struct {
	mu     sync.Mutex
	srv    *http.Server // nil: off
	port   int
	code   string
	joined []*screen
	last   int // number given to the last that joined
	tries  map[netip.Addr]*caller
}

// caller is where codes were typed from.
type caller struct {
	may   *rate.Limiter
	wrong int
	at    time.Time
}

// screen is a device that was let in.
type screen struct {
	number int
	token  string
	at     time.Time
	seen   time.Time
	// in ends when the screen is taken back, and with it what it had begun.
	in  context.Context
	out context.CancelFunc
}

// What guards the door; our own defaults.
const (
	codeLength  = 8
	mostScreens = 8
	triesEvery  = 4 * time.Second // one more guess of a code in
	triesAtOnce = 5
	usualDoor   = 8421
	mostCallers = 256 // places whose wrong codes are kept in mind; the one not heard of the longest goes first
	mostLines   = 64  // connections at a time, of all other screens
	linesEach   = 12  // and of one of them
	staysIn     = 30 * 24 * time.Hour
)

// codeLetters leave out what is mistaken for another.
const codeLetters = "ABCDEFGHJKMNPQRSTUVWXYZ23456789"

// Screens is what is shown of the other screens.
type Screens struct {
	On        bool         `json:"on"`
	Guest     bool         `json:"guest" doc:"asked by one of the other screens, which may tick steps, count, and write the log"`
	Code      string       `json:"code,omitempty" doc:"lets the next device in, once"`
	Addresses []string     `json:"addresses" nullable:"false" doc:"of this machine in the house, to type in"`
	Link      string       `json:"link,omitempty" doc:"address with the code"`
	Joined    []ScreenSeen `json:"joined" nullable:"false"`
	Wrong     []WrongCodes `json:"wrong" nullable:"false" doc:"where wrong codes were typed, the latest first"`
}

// WrongCodes are codes typed somewhere that were not the one shown.
type WrongCodes struct {
	From string `json:"from" doc:"address in the house"`
	N    int    `json:"n" doc:"so many, those refused unread among them"`
	At   string `json:"at" doc:"the last, RFC 3339"`
}

// ScreenSeen is a device that was let in.
type ScreenSeen struct {
	Number int    `json:"number"`
	At     string `json:"at" doc:"when it was let in, RFC 3339"`
	Seen   string `json:"seen" doc:"when it last asked for something, RFC 3339"`
}

// CardNow is what of a card may have changed by another screen.
type CardNow struct {
	Version int64     `json:"version"`
	Run     store.Run `json:"run"`
}

type guestKey struct{}

func (s *Server) screensRoutes() {
	huma.Register(s.api, op("screens", http.MethodGet, "/api/screens", "Other screens that were let in"), func(ctx context.Context, _ *struct{}) (*screensOut, error) {
		if ctx.Value(guestKey{}) != nil {
			return &screensOut{Screens{On: true, Guest: true, Addresses: []string{}, Joined: []ScreenSeen{}, Wrong: []WrongCodes{}}}, nil
		}
		return &screensOut{s.screens.show()}, nil
	})
	huma.Register(s.api, op("let-in", http.MethodPost, "/api/screens", "Let other devices of the house in, by a code"), func(context.Context, *struct{}) (*screensOut, error) {
		if err := s.screens.open(s.forGuests()); err != nil {
			return nil, problem(err)
		}
		return &screensOut{s.screens.show()}, nil
	})
	huma.Register(s.api, op("shut-out", http.MethodDelete, "/api/screens", "Take all other screens back"), func(context.Context, *struct{}) (*screensOut, error) {
		s.screens.shut()
		return &screensOut{s.screens.show()}, nil
	})
	huma.Register(s.api, op("take-screen-back", http.MethodDelete, "/api/screens/{number}", "Take one screen back"), func(_ context.Context, in *struct {
		Number int `path:"number"`
	}) (*screensOut, error) {
		s.screens.take(in.Number)
		return &screensOut{s.screens.show()}, nil
	})
	huma.Register(s.api, op("card-now", http.MethodGet, "/api/cards/{id}/now", "What of a card another screen may have changed"), func(ctx context.Context, in *cardIn) (*struct{ Body CardNow }, error) {
		v, err := s.store.Card(ctx, in.ID)
		if err != nil {
			return nil, problem(err)
		}
		r, err := s.store.Run(ctx, in.ID)
		return &struct{ Body CardNow }{CardNow{v.Version, r}}, problem(err)
	})
}

type screensOut struct{ Body Screens }

// Close shuts the door to other screens, if it is open.
func (s *Server) Close() { s.screens.shut() }

func newCode() string {
	b := make([]byte, codeLength)
	for i := range b {
		for { // each letter as likely as any other
			var one [1]byte
			_, _ = rand.Read(one[:]) // never fails
			if int(one[0]) < 256/len(codeLetters)*len(codeLetters) {
				b[i] = codeLetters[int(one[0])%len(codeLetters)]
				break
			}
		}
	}
	return string(b)
}

func (d *screens) open(h http.Handler) error {
	d.mu.Lock()
	defer d.mu.Unlock()
	if d.srv != nil {
		return nil
	}
	if len(houseAddresses()) == 0 {
		return kit.Problem{Path: "screens", What: "this machine is in no house network: join it to one first"}
	}
	ls, port, err := listenTo(houseAddresses())
	if err != nil {
		return fmt.Errorf("listen to the house: %w", err)
	}
	d.port = port
	d.code, d.tries = newCode(), map[netip.Addr]*caller{}
	d.srv = &http.Server{Handler: h, ReadHeaderTimeout: 10 * time.Second, IdleTimeout: 30 * time.Second, MaxHeaderBytes: 1 << 16}
	all := &lines{}
	for _, l := range ls {
		go func(srv *http.Server) {
			if err := srv.Serve(&counting{l, all}); !errors.Is(err, http.ErrServerClosed) {
				d.shut()
			}
		}(d.srv)
	}
	return nil
}

func (d *screens) shut() {
	d.mu.Lock()
	srv := d.srv
	for _, s := range d.joined {
		s.out()
	}
	d.srv, d.joined, d.code = nil, nil, ""
	d.mu.Unlock()
	if srv != nil {
		_ = srv.Close()
	}
}

func (d *screens) take(number int) {
	d.mu.Lock()
	defer d.mu.Unlock()
	d.joined = slices.DeleteFunc(d.joined, func(s *screen) bool {
		if s.number == number {
			s.out()
		}
		return s.number == number
	})
}

func (d *screens) show() Screens {
	d.mu.Lock()
	defer d.mu.Unlock()
	out := Screens{On: d.srv != nil, Addresses: []string{}, Joined: []ScreenSeen{}, Wrong: []WrongCodes{}}
	if d.srv == nil {
		return out
	}
	for _, a := range houseAddresses() {
		out.Addresses = append(out.Addresses, fmt.Sprintf("http://%s:%d", a, d.port))
	}
	out.Code = d.code
	if len(out.Addresses) > 0 {
		out.Link = out.Addresses[0] + "/join?code=" + d.code
	}
	for _, s := range d.joined {
		out.Joined = append(out.Joined, ScreenSeen{s.number, s.at.Format(time.RFC3339), s.seen.Format(time.RFC3339)})
	}
	for from, c := range d.tries {
		if c.wrong > 0 {
			out.Wrong = append(out.Wrong, WrongCodes{from.String(), c.wrong, c.at.Format(time.RFC3339)})
		}
	}
	slices.SortFunc(out.Wrong, func(a, b WrongCodes) int { return cmp.Or(cmp.Compare(b.At, a.At), cmp.Compare(a.From, b.From)) })
	return out
}

// houseNets are networks the internet does not reach besides the private ones: link-local
// (RFC 3927) and those of examples (RFC 5737), which some sandboxes use. The address space that
// a carrier shares among its customers (RFC 6598) is not of the house.
var houseNets = []netip.Prefix{
	netip.MustParsePrefix("169.254.0.0/16"),
	netip.MustParsePrefix("192.0.2.0/24"), netip.MustParsePrefix("198.51.100.0/24"), netip.MustParsePrefix("203.0.113.0/24"),
}

// ofTheHouse reports whether an address is of this machine or of a network that the
// internet does not reach (RFC 1918 and those above).
func ofTheHouse(ip netip.Addr) bool {
	ip = ip.Unmap()
	return ip.IsLoopback() || ip.IsPrivate() || slices.ContainsFunc(houseNets, func(p netip.Prefix) bool { return p.Contains(ip) })
}

// houseAddresses are those of this machine that others in the house reach.
func houseAddresses() (out []string) {
	all, err := net.InterfaceAddrs()
	if err != nil {
		return nil
	}
	for _, a := range all {
		if p, err := netip.ParsePrefix(a.String()); err == nil && p.Addr().Is4() && !p.Addr().IsLoopback() && ofTheHouse(p.Addr()) {
			out = append(out, p.Addr().String())
		}
	}
	return out
}

// errJoin says why a device was not let in.
var (
	errCode  = errors.New("that is not the code shown. Look again: it is used once, and a new one is shown then")
	errTries = errors.New("too many wrong codes. Wait a minute, then try again")
	errMany  = errors.New("as many screens as there may be are in: take one back first")
)

// join lets a device in that knows the code.
// Whoever guesses has to wait for each guess, and nobody else waits with them.
func (d *screens) join(from netip.Addr, code string, now time.Time) (token string, err error) {
	d.mu.Lock()
	defer d.mu.Unlock()
	if d.srv == nil {
		return "", errCode
	}
	c := d.callerOf(from, now)
	if !c.may.AllowN(now, 1) {
		c.wrong++
		return "", errTries
	}
	code = strings.ToUpper(strings.Join(strings.FieldsFunc(code, func(r rune) bool { return r == ' ' || r == '-' }), ""))
	if subtle.ConstantTimeCompare([]byte(code), []byte(d.code)) != 1 {
		c.wrong++
		return "", errCode
	}
	if len(d.joined) >= mostScreens {
		return "", errMany
	}
	var b [32]byte
	_, _ = rand.Read(b[:])
	d.last++
	in, out := context.WithCancel(context.Background())
	d.joined = append(d.joined, &screen{d.last, hex.EncodeToString(b[:]), now, now, in, out})
	d.code = newCode() // each lets one in
	delete(d.tries, from)
	return hex.EncodeToString(b[:]), nil
}

// isIn reports whether a token is that of a device let in, and until when it is.
func (d *screens) isIn(token string, now time.Time) (in context.Context, is bool) {
	d.mu.Lock()
	defer d.mu.Unlock()
	for _, s := range d.joined {
		if subtle.ConstantTimeCompare([]byte(s.token), []byte(token)) == 1 {
			s.seen = now
			return s.in, true
		}
	}
	return nil, false
}

// callerOf is what is known of where a code is typed.
func (d *screens) callerOf(from netip.Addr, now time.Time) *caller {
	c, ok := d.tries[from]
	if !ok {
		if len(d.tries) >= mostCallers {
			oldest := from
			for a, o := range d.tries {
				if oldest == from || o.at.Before(d.tries[oldest].at) {
					oldest = a
				}
			}
			delete(d.tries, oldest)
		}
		c = &caller{may: rate.NewLimiter(rate.Every(triesEvery), triesAtOnce)}
		d.tries[from] = c
	}
	c.at = now
	return c
}

// cookie is what the cookie of this program is called: cookies go by the machine and not by
// the port, and another program may run on it.
func (d *screens) cookie() string {
	d.mu.Lock()
	defer d.mu.Unlock()
	return "ochrestone-screen-" + strconv.Itoa(d.port)
}

package server

import (
	"net"
	"net/netip"
	"strconv"
	"sync"
)

// listenTo listens on those addresses of this machine alone, on the usual port or, where
// another program has it, on a free one.
func listenTo(addresses []string) (out []net.Listener, port int, err error) {
	for _, port = range []int{usualDoor, 0} {
		for _, a := range addresses {
			var l net.Listener
			if l, err = net.Listen("tcp4", net.JoinHostPort(a, strconv.Itoa(port))); err != nil {
				break
			}
			out, port = append(out, l), l.Addr().(*net.TCPAddr).Port
		}
		if err == nil {
			return out, port, nil
		}
		for _, l := range out {
			_ = l.Close()
		}
		out = nil
	}
	return nil, 0, err
}

// lines counts the connections of other screens.
type lines struct {
	mu  sync.Mutex
	all int
	by  map[netip.Addr]int
}

func (n *lines) take(from netip.Addr) bool {
	n.mu.Lock()
	defer n.mu.Unlock()
	if n.by == nil {
		n.by = map[netip.Addr]int{}
	}
	if n.all >= mostLines || n.by[from] >= linesEach {
		return false
	}
	n.all++
	n.by[from]++
	return true
}

func (n *lines) give(from netip.Addr) {
	n.mu.Lock()
	defer n.mu.Unlock()
	n.all--
	if n.by[from]--; n.by[from] <= 0 {
		delete(n.by, from)
	}
}

// counting closes connections past those there may be.
type counting struct {
	net.Listener
	lines *lines
}

func (b *counting) Accept() (net.Conn, error) {
	for {
		c, err := b.Listener.Accept()
		if err != nil {
			return nil, err
		}
		from := addressOf(c.RemoteAddr().String())
		if b.lines.take(from) {
			return &line{Conn: c, end: func() { b.lines.give(from) }}, nil
		}
		_ = c.Close()
	}
}

type line struct {
	net.Conn
	once sync.Once
	end  func()
}

func (l *line) Close() error {
	l.once.Do(l.end)
	return l.Conn.Close()
}

// addressOf is the address in what names a connection's other end; the zero one where there is
// none.
func addressOf(remote string) netip.Addr {
	from, err := netip.ParseAddrPort(remote)
	if err != nil {
		return netip.Addr{}
	}
	return from.Addr().Unmap()
}

package bend

import "math"

// matrix is a symmetric one that is narrow about its diagonal: each row holds what is left of the
// diagonal, and it.
type matrix struct {
	n, wide int
	v       []float64 // by row, wide+1 a row, the diagonal last
}

func newMatrix(n, wide int) matrix { return matrix{n, wide, make([]float64, n*(wide+1))} }

// like is an empty matrix of the same shape.
func (m matrix) like() matrix { return newMatrix(m.n, m.wide) }

// at is an entry on or left of the diagonal.
func (m matrix) at(i, j int) *float64 { return &m.v[i*(m.wide+1)+m.wide-(i-j)] }

// term is c times the square of a sum of heights of nodes, each by a factor.
type term struct {
	node [5]int
	by   [5]float64
	n    int
	c    float64
}

// add adds a term's square.
func (m matrix) add(t term) {
	for a := range t.n {
		for b := range t.n {
			if i, j := t.node[a], t.node[b]; i >= j {
				*m.at(i, j) += t.c * t.by[a] * t.by[b]
			}
		}
	}
}

// times is the matrix by a vector.
func (m matrix) times(x []float64) []float64 {
	out := make([]float64, m.n)
	for i := range m.n {
		row := m.v[i*(m.wide+1) : (i+1)*(m.wide+1)]
		for j := max(0, i-m.wide); j < i; j++ {
			v := row[m.wide-(i-j)]
			out[i] += v * x[j]
			out[j] += v * x[i]
		}
		out[i] += row[m.wide] * x[i]
	}
	return out
}

// solve solves for a right side in place, by Cholesky's way; the matrix is used up.
func (m matrix) solve(x []float64) {
	w := m.wide
	for i := range m.n {
		row := m.v[i*(w+1) : (i+1)*(w+1)]
		left := max(0, i-w)
		j := left
		// Two columns at a time: what is to the left of both is gone through once.
		for ; j+1 < i; j += 2 {
			from := max(left, j+1-w)
			one, two := m.v[j*(w+1):(j+1)*(w+1)], m.v[(j+1)*(w+1):(j+2)*(w+1)]
			s, t := dots(row[w-(i-from):w-(i-j)], one[w-(j-from):w], two[w-(j+1-from):w-1])
			if from > left { // the first column reaches one further
				s += row[w-(i-left)] * one[w-(j-left)]
			}
			v := (row[w-(i-j)] - s) / one[w]
			row[w-(i-j)] = v
			row[w-(i-j-1)] = (row[w-(i-j-1)] - t - v*two[w-1]) / two[w]
		}
		if j < i {
			one := m.v[j*(w+1) : (j+1)*(w+1)]
			from := max(left, j-w)
			s, _ := dots(row[w-(i-from):w-(i-j)], one[w-(j-from):w], one[w-(j-from):w])
			row[w-(i-j)] = (row[w-(i-j)] - s) / one[w]
		}
		d := row[w-(i-left) : w]
		s, _ := dots(d, d, d)
		row[w] = math.Sqrt(max(row[w]-s, 1e-12))
	}
	for i := range m.n {
		row, left := m.v[i*(w+1):(i+1)*(w+1)], max(0, i-w)
		s, _ := dots(row[w-(i-left):w], x[left:i], x[left:i])
		x[i] = (x[i] - s) / row[w]
	}
	for i := m.n - 1; i >= 0; i-- {
		row, left := m.v[i*(w+1):(i+1)*(w+1)], max(0, i-w)
		x[i] /= row[w]
		v, to := x[i], x[left:i]
		for k, a := range row[w-(i-left) : w] {
			to[k] -= a * v
		}
	}
}

// dots is a row by two others as long, in four sums so that none waits for another.
func dots(a, b, c []float64) (s, t float64) {
	b, c = b[:len(a)], c[:len(a)]
	var s1, t1 float64
	k := 0
	for ; k+1 < len(a); k += 2 {
		s += a[k] * b[k]
		t += a[k] * c[k]
		s1 += a[k+1] * b[k+1]
		t1 += a[k+1] * c[k+1]
	}
	if k < len(a) {
		s += a[k] * b[k]
		t += a[k] * c[k]
	}
	return s + s1, t + t1
}

// Package estimate works out what jobs cost a client by the firm's own rates, in whole minor units of a currency: nothing
// is reckoned in floats. What it comes to is an estimate of the work, said from–to; the rates are the firm's.
package estimate

import (
	"fmt"
	"math"
	"math/big"
	"strings"
)

// Amount is money in minor units of its currency: cents, öre, fils, or whole yen.
type Amount int64

// Share is a share in hundredths of a per cent: 2200 is 22 %.
type Share int64

const whole = 10_000 // hundredths of a per cent in one

// part is so many of `of` parts of an amount, rounded half away from zero.
func (a Amount) part(of int64, times ...int64) Amount {
	n := big.NewInt(int64(a))
	for _, t := range times {
		n.Mul(n, big.NewInt(t))
	}
	half := big.NewInt(of / 2)
	if n.Sign() < 0 {
		half.Neg(half)
	}
	n.Add(n, half)
	n.Quo(n, big.NewInt(of)) // towards zero, as the half was added away from it
	return Amount(n.Int64())
}

// thousandths are those of a measured quantity: it is estimated, and a finer measure means nothing.
func thousandths(v float64) int64 { return int64(math.Round(1000 * v)) }

// Range is an amount as it is reckoned, and between which it will likely come to lie.
type Range struct {
	From   Amount `json:"from" money:"true" doc:"The least that it will likely cost, in the smallest unit of the currency"`
	Amount Amount `json:"amount" money:"true" doc:"As it is reckoned"`
	To     Amount `json:"to" money:"true" doc:"The most that it will likely cost"`
}

// exactly is an amount that is known.
func exactly(a Amount) Range { return Range{a, a, a} }

// add is the sum of two.
func (r Range) add(o Range) Range { return Range{r.From + o.From, r.Amount + o.Amount, r.To + o.To} }

// Sum is what an estimate comes to: without tax, the tax, and with it.
type Sum struct {
	Net   Range `json:"net" doc:"Without tax"`
	Tax   Range `json:"tax" doc:"The tax"`
	Gross Range `json:"gross" doc:"What the client pays"`
}

// taxed is a sum of what was reckoned with the firm's tax: on top, or held in it. Tax is rounded once, on the whole.
func (r *Rates) taxed(of Range) Sum {
	each := func(a Amount) (net, tax, gross Amount) {
		if r.TaxIncluded {
			tax = a.part(whole+int64(r.Tax), int64(r.Tax))
			return a - tax, tax, a
		}
		tax = a.part(whole, int64(r.Tax))
		return a, tax, a + tax
	}
	var s Sum
	s.Net.From, s.Tax.From, s.Gross.From = each(of.From)
	s.Net.Amount, s.Tax.Amount, s.Gross.Amount = each(of.Amount)
	s.Net.To, s.Tax.To, s.Gross.To = each(of.To)
	return s
}

// Text is an amount as it stands on paper: the currency's letters, thousands parted by a space, so that no reader takes a
// point for a comma.
func (a Amount) Text(currency string, digits int) string {
	sign := ""
	if a < 0 {
		sign, a = "−", -a
	}
	s := fmt.Sprintf("%0*d", digits+1, int64(a))
	major, minor := s[:len(s)-digits], s[len(s)-digits:]
	for i := len(major) - 3; i > 0; i -= 3 {
		major = major[:i] + "\u00a0" + major[i:]
	}
	if digits > 0 {
		major += "." + minor
	}
	if currency == "" {
		return sign + major
	}
	return currency + "\u00a0" + sign + major
}

// Plain is an amount for a table that others read: figures and a point alone.
func (a Amount) Plain(digits int) string {
	s := strings.ReplaceAll(a.Text("", digits), "\u00a0", "")
	return strings.Replace(s, "−", "-", 1)
}

// Text is a range as it stands on paper.
func (r Range) Text(currency string, digits int) string {
	if r.From == r.To {
		return r.Amount.Text(currency, digits)
	}
	return r.From.Text(currency, digits) + "–" + r.To.Text("", digits)
}

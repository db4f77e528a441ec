package exchange

import (
	"context"
	"math"
	"strings"
	"testing"
)

// FuzzReadPlanGeoJSON: whatever comes, it is refused by name or read as things that lie near the property.
func FuzzReadPlanGeoJSON(f *testing.F) {
	f.Add(`{"type":"FeatureCollection","features":[{"type":"Feature","geometry":{"type":"Point","coordinates":[8.6,45.9]},"properties":{"kind":"tree","height_m":9}}]}`)
	f.Add(`{"type":"FeatureCollection","features":[{"geometry":{"type":"Polygon","coordinates":[[[8.6,45.9],[8.61,45.9],[8.61,45.91]]]},"properties":{}}]}`)
	f.Add(`{"type":"FeatureCollection","features":[{"geometry":{"type":"LineString","coordinates":[[8.6],[8.61,45.9]]}}]}`)
	f.Fuzz(func(t *testing.T, s string) {
		things, err := ReadPlanGeoJSON([]byte(s), 45.9, 8.6)
		if err != nil {
			return
		}
		for _, x := range things {
			for _, q := range x.Points {
				if !(math.Hypot(q.X, q.Y) < 2*farthestM) {
					t.Errorf("%+v lies far away", x)
				}
			}
		}
	})
}

// FuzzReadWays: what is read has two names and minutes that can be, and comes back the same.
func FuzzReadWays(f *testing.F) {
	f.Add("from,to,minutes\nCrew 1,Villa Lumera,9\n")
	f.Add("from;to;minutes\n'=1;b;4,5\n")
	f.Fuzz(func(t *testing.T, s string) {
		list, err := ReadWays(strings.NewReader(s))
		if err != nil {
			return
		}
		var out strings.Builder
		if err := WriteWays(&out, list); err != nil {
			t.Fatal(err)
		}
		again, err := ReadWays(strings.NewReader(out.String()))
		if err != nil || len(again) != len(list) {
			t.Fatalf("%d came back as %d: %v", len(list), len(again), err)
		}
		for i, w := range list {
			if !(w.Minutes >= 0 && w.Minutes <= longestWay) || again[i].Minutes != w.Minutes {
				t.Errorf("%+v came back as %+v", w, again[i])
			}
		}
	})
}

// FuzzPhoto: no file makes it fall over, and what is taken is a small picture.
func FuzzPhoto(f *testing.F) {
	f.Add([]byte("GIF89a\x01\x00\x01\x00\x00\x00\x00,\x00\x00\x00\x00\x01\x00\x01\x00\x00\x02\x02D\x01\x00;"))
	f.Add([]byte("\x89PNG\r\n\x1a\n"))
	f.Fuzz(func(t *testing.T, b []byte) {
		jpeg, w, h, err := Photo(context.Background(), b)
		if err == nil && (len(jpeg) == 0 || w < 1 || h < 1 || w > photoEdge || h > photoEdge) {
			t.Errorf("%d bytes of %d × %d", len(jpeg), w, h)
		}
	})
}

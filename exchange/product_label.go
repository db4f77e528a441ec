package exchange

import (
	"bytes"
	"context"
	"fmt"
)

// pdfEnd is how near its end a PDF says that it ends, bytes.
const pdfEnd = 2048

// ProductLabel reads the label of a product: a PDF as it is, or a picture as Photo gives it.
func ProductLabel(ctx context.Context, file []byte) (kept []byte, is string, err error) {
	if bytes.HasPrefix(file, []byte("%PDF-")) {
		if !bytes.Contains(file[max(0, len(file)-pdfEnd):], []byte("%%EOF")) {
			return nil, "", fmt.Errorf("the PDF is cut off: its end is missing")
		}
		return file, "pdf", nil
	}
	jpeg, _, _, err := Photo(ctx, file)
	if err != nil {
		return nil, "", fmt.Errorf("%w, or a PDF", err)
	}
	return jpeg, "jpg", nil
}

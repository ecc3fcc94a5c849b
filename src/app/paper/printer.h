// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The report as pages: the store's HTML laid out by Qt, its ladder drawn from the same SVG, printed to PDF.

#include <QString>
#include <string>

class QTextDocument;

namespace ibuki {

/// How large drawings stand in the document, and how finely they are drawn (1 for the screen, more for
/// print).
struct DrawingSize {
    int width = 690; ///< in 1/96 inch
    int pixelsPerUnit = 1;
};

/// Puts the report (htmlReport) into a document for preview or print; dark pages are never made.
void fillDocument(QTextDocument& text, const std::string& report, const DrawingSize& image);

/// Writes an A4 PDF in place at once; throws InputError (file-not-writable).
void printReport(const std::string& report, const QString& path);

} // namespace ibuki

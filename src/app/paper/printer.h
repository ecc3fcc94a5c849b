// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The report as pages: the store's HTML laid out by Qt, its ladder drawn from the same SVG, printed to PDF.

#include "core/domain/study.h"
#include "store/paper/report.h"

#include <QString>
#include <memory>

class QTextDocument;

namespace ibuki {

/// How large the ladder stands in the document, and how finely it is drawn (1 for the screen, more for
/// print).
struct LadderImage {
    int width = 690; ///< in 1/96 inch
    int pixelsPerUnit = 1;
};

/// A document for preview and print; dark pages are never made.
std::unique_ptr<QTextDocument> reportDocument(const Document& document, const Question& question,
                                              const ReportParts& parts, const LadderImage& image);

/// Writes an A4 PDF in place at once; throws InputError (file-not-writable).
void printReport(const Document& document, const Question& question, const ReportParts& parts,
                 const QString& path);

} // namespace ibuki

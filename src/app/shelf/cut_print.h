// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A cutting plan on paper at exactly 1:1: the store's page of each layout, as SVG files, one PDF, or printed.

#include "core/shelf/cut.h"

#include <QString>
#include <QStringList>
#include <vector>

class QPrinter;

namespace ibuki {

/// The page of each layout, in order.
std::vector<std::string> cutPages(const CutJob& job, const CutPlan& plan, const QString& title);

/// One file a page; "pads.svg" becomes "pads 1.svg", "pads 2.svg" when there are several. Returns the paths.
/// Throws InputError (file-not-writable); what was written before stays whole.
QStringList writeCutSvg(const std::vector<std::string>& pages, const QString& path);

/// All pages in one PDF, each of its own size. Throws InputError (file-not-writable).
void writeCutPdf(const std::vector<std::string>& pages, const QString& path);

/// False: the printer did not take it. Pages keep their scale; a printer with less room than a page cuts its
/// border.
bool printCut(const std::vector<std::string>& pages, QPrinter& printer);

} // namespace ibuki

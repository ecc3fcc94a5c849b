// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A page of the verdict as a file.

class QString;

namespace ibuki {

class Session;
class VerdictPage;

/// The page as a picture (.svg, .png) or its data (.csv), by the path's ending; refused with a sentence.
bool exportPage(Session& session, VerdictPage& page, const QString& path);

/// Asks where to, then does it.
void askExport(Session& session, VerdictPage& page);

} // namespace ibuki

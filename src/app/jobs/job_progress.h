// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The one way in which the window shows that something takes longer.

class QString;
class QWidget;

namespace ibuki {

class JobRunner;

/// Shows how far the job that was just started has come, with a button that calls it off; only when it takes
/// longer than a blink. Gone when the job has ended.
/// beside: the window stays free for other work meanwhile.
void showProgress(JobRunner& job, const QString& title, QWidget* parent, bool beside = false);

} // namespace ibuki

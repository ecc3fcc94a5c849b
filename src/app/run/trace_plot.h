// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/reduce/settings.h"
#include "core/trace/trace.h"

#include <QTimer>
#include <QWidget>
#include <array>

class QCPGraph;
class QCPItemLine;
class QCustomPlot;

namespace ibuki {

struct LoadReduction;
struct Reduction;

/// The chosen metric and the room over time, load and steady window shaded, power on a second axis. The four
/// borders can be moved by mouse, or by the arrow keys: up and down choose one, left and right move it, with
/// Shift further, Backspace puts it back. What was found stays visible as a dashed frame. A room probe's
/// curve is moved with Alt, by dragging or by the left and right keys. The wheel, plus and minus make it
/// closer and wider, Page Up and Down move along it, 0 shows all of it.
class TracePlot : public QWidget {
    Q_OBJECT

public:
    explicit TracePlot(QWidget* parent = nullptr);

    /// load: the one whose borders are shown, an index into the reduction's loads; nothing: the longest.
    void show(const Trace& trace, const Reduction& reduction, Metric metric,
              std::optional<std::size_t> load = {});
    void clear();
    void restyle(); ///< colours of the theme in force
    void setMovable(bool movable) { movable_ = movable; }

signals:
    /// The user moved borders and rests; times in seconds, empty where as found.
    void bordersMoved(const ibuki::HandMarks& marks);
    /// The user laid the room probe's curve where it belongs: seconds to add to its clock.
    void probeMoved(double shiftS);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;
    void changeEvent(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

private:
    enum Border { loadStart, loadEnd, windowStart, windowEnd };
    struct Mark {
        double foundS = 0;
        double nowS = 0;
        bool byHand = false;
        QCPItemLine* line = nullptr;
    };

    void shade(double from, double to, const QColor& colour, bool framed = false);
    void addCurves(const Trace& trace, Metric metric);
    void addBorders(const LoadReduction& load);
    void drawBorders();
    void moveTo(Border border, double timeS);
    void putBack(Border border);
    std::optional<Border> borderAt(double x) const;
    double timeAt(double x) const;
    bool zooms(const QKeyEvent& event);
    void tell();
    void tellProbe();
    void moveProbe(double byS);

    QCustomPlot* plot_;
    std::array<Mark, 4> marks_;
    int loadIndex_ = -1;
    bool hasBorders_ = false;
    bool movable_ = false;
    double stepS_ = 5;
    double endS_ = 0;
    std::optional<Border> dragged_;
    Border chosen_ = windowStart;
    QTimer rest_;                            ///< runs while keys are still being pressed
    std::optional<double> probeShiftS_;      ///< of the trace shown, when it has a room probe
    double probeMovedS_ = 0;                 ///< by the user, not told yet
    std::optional<double> probeDraggedFrom_; ///< s
    QCPGraph* room_ = nullptr;
};

} // namespace ibuki

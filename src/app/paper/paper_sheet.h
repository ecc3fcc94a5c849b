// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The report as one long page to read. Its sections are documents of their own, so that a change lays out
// again what it changes: all of it takes several frames. Emits nothing; scrolls by wheel, arrows and page
// keys, Ctrl+C copies the text.

#include <QAbstractScrollArea>
#include <QTextDocument>
#include <memory>
#include <vector>

namespace ibuki {

class PaperSheet : public QAbstractScrollArea {
    Q_OBJECT

public:
    explicit PaperSheet(QWidget* parent = nullptr);

    /// The report (htmlReport) or any other text; where one reads stays.
    void show(const std::string& report);
    QString text() const;
    /// How many sections were laid out since the beginning; for tests.
    int laidOut() const { return laidOut_; }

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void changeEvent(QEvent* event) override;

private:
    struct Section {
        std::string html;
        std::unique_ptr<QTextDocument> text;
        QString plain; ///< of text
        double heightPx = 0;
    };
    void layOut(Section& section);
    void fitScrollBar();
    void copyText() const;

    std::vector<Section> sections_;
    int laidOut_ = 0;
};

} // namespace ibuki

// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

class QLabel;
class QMenu;
class QPushButton;

namespace ibuki {

class Session;

/// project ▸ bench ▸ study as three quiet buttons with lists, and the study's sentence.
class TopLine : public QWidget {
    Q_OBJECT

public:
    /// The actions are the window's own, so that keys, palette and lists agree.
    TopLine(Session& session, const QList<QAction*>& project, const QList<QAction*>& bench,
            const QList<QAction*>& study, QWidget* parent = nullptr);
    void refresh();

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    QPushButton* crumb(const QString& name, const QString& key);
    void fillBenches(QMenu* menu);
    void fillStudies(QMenu* menu);
    void fitSentence();

    Session& session_;
    QList<QAction*> benchActions_;
    QList<QAction*> studyActions_;
    QPushButton* project_;
    QPushButton* bench_;
    QPushButton* study_;
    QLabel* sentence_;
    QString whole_; ///< the sentence before it is cut to fit
};

} // namespace ibuki

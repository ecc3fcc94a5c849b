// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/top_line.h"

#include "app/drawn/theme.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/session/session.h"
#include "core/domain/study.h"
#include "store/paper/sentences.h"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QMenu>
#include <QTimer>

namespace ibuki {
namespace {

constexpr const char* projectKey = "Alt+P";
constexpr const char* benchKey = "Alt+B";
constexpr const char* studyKey = "Alt+S";

} // namespace

TopLine::TopLine(Session& session, const QList<QAction*>& project, const QList<QAction*>& bench,
                 const QList<QAction*>& study, QWidget* parent)
    : QWidget(parent),
      session_(session),
      benchActions_(bench),
      studyActions_(study),
      project_(crumb(say("Project"), projectKey)),
      bench_(crumb(say("Bench"), benchKey)),
      study_(crumb(say("Study"), studyKey)),
      sentence_(new QLabel) {
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(2);
    layout->addWidget(project_);
    for (QPushButton* next : {bench_, study_}) {
        auto* arrow = new QLabel("▸");
        arrow->setProperty("quiet", true);
        layout->addWidget(arrow);
        layout->addWidget(next);
    }
    layout->addSpacing(14);
    sentence_->setProperty("quiet", true);
    sentence_->setAccessibleName(say("The study in one sentence"));
    sentence_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    layout->addWidget(sentence_, 1);
    auto* find = quietLabel(say("%1  find or do").arg(QStringLiteral("Ctrl+K")));
    find->setWordWrap(false);
    layout->addSpacing(10);
    layout->addWidget(find);
    project_->menu()->addActions(project);
    connect(bench_->menu(), &QMenu::aboutToShow, this, [this] { fillBenches(bench_->menu()); });
    connect(study_->menu(), &QMenu::aboutToShow, this, [this] { fillStudies(study_->menu()); });
    refresh();
}

QPushButton* TopLine::crumb(const QString& name, const QString& key) {
    auto* made = new QPushButton(this);
    made->setProperty("quiet", true);
    made->setAccessibleName(name);
    made->setToolTip(name + " (" + key + ")");
    made->setMenu(new QMenu(made));
    made->setShortcut(QKeySequence(key));
    return made;
}

void TopLine::fillBenches(QMenu* menu) {
    menu->clear();
    for (const auto& [id, bench] : session_.document().all<Bench>()) {
        QAction* action = menu->addAction(qtext(bench.name));
        action->setCheckable(true);
        action->setChecked(session_.selection().bench == id);
        connect(action, &QAction::triggered, this, [this, id = id] {
            Selection selection;
            selection.bench = id;
            session_.select(selection);
        });
    }
    menu->addSeparator();
    menu->addActions(benchActions_);
}

void TopLine::fillStudies(QMenu* menu) {
    menu->clear();
    for (const auto& [id, study] : session_.document().all<Study>()) {
        QAction* action =
            menu->addAction(qtext(study.name) + (study.state == StudyState::closed ? say(" (closed)") : ""));
        action->setCheckable(true);
        action->setChecked(session_.selection().study == id);
        connect(action, &QAction::triggered, this, [this, id = id] {
            Selection selection = session_.selection();
            selection.study = id;
            selection.mount.reset();
            session_.select(selection);
        });
    }
    menu->addSeparator();
    menu->addActions(studyActions_);
}

void TopLine::refresh() {
    const auto shortened = [this](const QString& text) {
        return fontMetrics().elidedText(text, Qt::ElideRight, 26 * fontMetrics().averageCharWidth());
    };
    const QString file = QFileInfo(session_.path()).completeBaseName();
    project_->setText(session_.isOpen() ? shortened(file) : say("no project"));
    bench_->setText(session_.bench() ? shortened(qtext(session_.bench()->name)) : say("no bench"));
    study_->setText(session_.study() ? shortened(qtext(session_.study()->name)) : say("no study"));
    // Setting the text clears a button's shortcut.
    project_->setShortcut(QKeySequence(projectKey));
    bench_->setShortcut(QKeySequence(benchKey));
    study_->setShortcut(QKeySequence(studyKey));
    const Question* question = session_.question();
    whole_ = question ? qtext(studySentence(session_.document(), *question)) : QString();
    sentence_->setToolTip(whole_);
    fitSentence();
    QTimer::singleShot(0, this, &TopLine::fitSentence); // other names leave it another width
}

void TopLine::fitSentence() {
    sentence_->setText(sentence_->fontMetrics().elidedText(whole_, Qt::ElideRight, sentence_->width() - 8));
}

void TopLine::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    QTimer::singleShot(0, this, &TopLine::fitSentence); // once the label has its new width
}

} // namespace ibuki

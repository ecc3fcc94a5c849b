// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paper/paper_view.h"

#include "app/forms/ask.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/paper/paper_sheet.h"
#include "app/paper/printer.h"
#include "app/say.h"
#include "core/base/input_error.h"
#include "core/domain/study.h"
#include "store/atomic_file.h"
#include "store/paper/report.h"

#include <QCheckBox>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QVBoxLayout>

namespace ibuki {

PaperView::PaperView(Session& session, QWidget* parent)
    : QWidget(parent), session_(session), parts_(std::make_unique<ReportParts>()), preview_(new PaperSheet) {
    explain(this, Topic::verdict);
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    preview_->setAccessibleName(say("Report as it will print"));
    layout->addWidget(preview_, 5);
    layout->addWidget(makeSwitches(), 2);
    refresh();
}

PaperView::~PaperView() = default;

QWidget* PaperView::makeSwitches() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(16, 12, 16, 12);
    layout->addWidget(cardTitle(say("What goes in")));
    const std::pair<QString, bool ReportParts::*> switches[] = {
        {say("Ladder"), &ReportParts::ladder},         {say("Sentences"), &ReportParts::sentences},
        {say("Pairs"), &ReportParts::pairs},           {say("Runs"), &ReportParts::runs},
        {say("Looks"), &ReportParts::looks},           {say("Drift"), &ReportParts::ageing},
        {say("Conditions"), &ReportParts::conditions}, {say("Cautions"), &ReportParts::cautions}};
    for (const auto& [name, member] : switches) {
        auto* box = new QCheckBox(name);
        box->setChecked((*parts_).*member);
        connect(box, &QCheckBox::toggled, this, [this, member = member](bool on) {
            (*parts_).*member = on;
            refresh();
        });
        layout->addWidget(box);
    }
    layout->addSpacing(14);
    layout->addWidget(cardTitle(say("Take it along")));
    const std::pair<QString, const char*> kinds[] = {{say("Print to PDF…"), "pdf"},
                                                     {say("Page for a browser…"), "html"},
                                                     {say("Table of runs…"), "csv"},
                                                     {say("All figures…"), "json"}};
    for (const auto& [name, ending] : kinds) {
        auto* made = button(name, say("A .%1 file").arg(ending));
        connect(made, &QPushButton::clicked, this,
                [this, title = name, ending = QString(ending)] { chooseExport(title, ending); });
        exports_.push_back(made);
        layout->addWidget(made);
    }
    layout->addStretch(1);
    layout->addWidget(quietLabel(say("Files are written whole or not at all. The table has one row a run, "
                                     "rejected ones with their reason.")));
    return scrolledWidget(card(layout));
}

std::string PaperView::html(const Question& question) {
    const auto thumbnail = [this](const JointPicture& picture) {
        const std::string key = picture.sha256 + picture.maskSha256;
        if (const auto known = thumbnails_.find(key); known != thumbnails_.end()) return known->second;
        const std::string made =
            lookThumbnail(picture, [this](const std::string& digest) { return session_.file(digest); });
        return thumbnails_.emplace(key, made).first->second;
    };
    return htmlReport(session_.document(), question, *parts_, thumbnail);
}

void PaperView::refresh() {
    const Question* question = session_.question();
    for (QPushButton* made : exports_) made->setEnabled(question != nullptr);
    std::string report = question ? html(*question) : std::string();
    if (report_ == report) return; // laying out takes longer than all the rest
    preview_->show(
        question ? report
                 : say("<p>The report of a study appears here. Ask a question first.</p>").toStdString());
    report_ = std::move(report);
}

void PaperView::chooseExport(const QString& title, const QString& ending) {
    const QString name = session_.study() ? qtext(session_.study()->name) : say("study");
    askFile(this, {FileWish::Kind::save, title, name + "." + ending, "*." + ending},
            [this](const QString& path) {
                if (exportTo(path)) session_.post(say("Written: %1").arg(path));
            });
}

bool PaperView::exportTo(const QString& path) {
    const Question* question = session_.question();
    if (!question) return false;
    const QString ending = QFileInfo(path).suffix();
    try {
        if (ending == "pdf")
            printReport(html(*question), path);
        else if (ending == "csv")
            writeFileAtomically(path.toStdString(), tidyCsv(session_.document(), *question));
        else if (ending == "json")
            writeFileAtomically(path.toStdString(), jsonReport(session_.document(), *question));
        else
            writeFileAtomically(path.toStdString(), html(*question));
        return true;
    } catch (const InputError& error) {
        session_.refuse(error);
        return false;
    }
}

} // namespace ibuki

// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"

#include <QWidget>
#include <map>

class QPushButton;

namespace ibuki {

class PaperSheet;
struct ReportParts;

/// The report as it will print, with switches for what goes in, and the exports.
class PaperView : public QWidget {
    Q_OBJECT

public:
    explicit PaperView(Session& session, QWidget* parent = nullptr);
    ~PaperView() override;
    void refresh();

    /// Writes by the ending of the path: .pdf, .html, .csv or .json. False with a notice when it failed.
    bool exportTo(const QString& path);

private:
    QWidget* makeSwitches();
    void chooseExport(const QString& title, const QString& ending);
    std::string html(const Question& question);

    Session& session_;
    std::unique_ptr<ReportParts> parts_;
    PaperSheet* preview_;
    std::optional<std::string> report_; ///< what it shows
    std::vector<QPushButton*> exports_;
    std::map<std::string, std::string> thumbnails_; ///< of looks, by their digests
};

} // namespace ibuki

// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A page of a view as a file.

#include <QWidget>
#include <string>

namespace ibuki {

class Session;

/// A page whose drawing and data can be exported.
class ExportedPage : public QWidget {
    Q_OBJECT

public:
    explicit ExportedPage(const QString& name, QWidget* parent = nullptr) : QWidget(parent), name_(name) {}

    const QString& name() const { return name_; }
    /// What is drawn, as data with its units in the head; empty where nothing is.
    virtual std::string csv() const = 0;
    /// What is exported as a picture.
    virtual QWidget* picture() { return this; }

private:
    QString name_;
};

/// The page as a picture (.svg, .png) or its data (.csv), by the path's ending; refused with a sentence.
bool exportPage(Session& session, ExportedPage& page, const QString& path);

/// Asks where to, then does it.
void askExport(Session& session, ExportedPage& page);

} // namespace ibuki

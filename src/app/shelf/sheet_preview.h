// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>
#include <memory>
#include <string>

class QSvgRenderer;

namespace ibuki {

/// The drawn part of a page as it will be printed, as large as there is room.
class SheetPreview : public QWidget {
    Q_OBJECT

public:
    explicit SheetPreview(QWidget* parent = nullptr);
    ~SheetPreview() override;
    void show(const std::string& page, const QRectF& partMm);
    void clear(const QString& why);

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::unique_ptr<QSvgRenderer> page_;
    QString why_;
};

} // namespace ibuki

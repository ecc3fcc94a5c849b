// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/widgets.h"

#include "app/drawn/theme.h"
#include "app/forms/flow_layout.h"

#include <QButtonGroup>
#include <QDialog>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QListWidget>
#include <QScrollArea>
#include <QStackedWidget>
#include <QTableWidgetItem>

namespace ibuki {

QFrame* card(QLayout* inside) {
    auto* frame = new QFrame;
    frame->setProperty("card", true);
    frame->setLayout(inside);
    return frame;
}

QLabel* cardTitle(const QString& text) {
    auto* label = new QLabel(text);
    setTextFont(label, 1.15, QFont::DemiBold);
    label->setWordWrap(true);
    return label;
}

QLabel* quietLabel(const QString& text) {
    auto* label = new QLabel(text);
    label->setProperty("quiet", true);
    label->setWordWrap(true);
    return label;
}

void addFormRow(QFormLayout* form, const QString& label, QWidget* field) {
    field->setAccessibleName(label);
    field->setObjectName(label);
    auto* caption = new QLabel(label);
    caption->setProperty("quiet", true);
    caption->setBuddy(field);
    form->setFieldGrowthPolicy(QFormLayout::AllNonFixedFieldsGrow);
    form->setRowWrapPolicy(QFormLayout::WrapLongRows);
    form->addRow(caption, field);
}

void openDialog(QDialog* dialog) {
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->open();
    // Rows that were measured before the style reached them would lie on each other.
    for (QListWidget* list : dialog->findChildren<QListWidget*>()) list->doItemsLayout();
}

QWidget* pageSwitch(QStackedWidget* pages, const QStringList& names) {
    auto* row = new QWidget;
    auto* layout = new FlowLayout(6, row, 6); // more pages than one line has room for go on in the next
    QSizePolicy policy(QSizePolicy::Preferred, QSizePolicy::Minimum);
    policy.setHeightForWidth(true);
    row->setSizePolicy(policy);
    auto* group = new QButtonGroup(row);
    for (int i = 0; i < names.size(); ++i) {
        auto* one = button(names[i]);
        one->setObjectName("Page " + names[i]);
        one->setCheckable(true);
        one->setProperty("page", true);
        one->setChecked(i == pages->currentIndex());
        group->addButton(one, i);
        layout->addWidget(one);
    }
    QObject::connect(group, &QButtonGroup::idClicked, pages, &QStackedWidget::setCurrentIndex);
    QObject::connect(pages, &QStackedWidget::currentChanged, group,
                     [group](int index) { group->button(index)->setChecked(true); });
    return row;
}

QScrollArea* scrolled(QLayout* inside) {
    auto* widget = new QWidget;
    widget->setLayout(inside);
    return scrolledWidget(widget);
}

QScrollArea* scrolledWidget(QWidget* widget) {
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setWidget(widget);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    return scroll;
}

QPushButton* button(const QString& text, const QString& toolTip, bool main) {
    auto* made = new QPushButton(text);
    made->setObjectName(text);
    made->setToolTip(toolTip);
    if (main) made->setProperty("main", true);
    return made;
}

QTableWidgetItem* fixedItem(const QString& text) {
    auto* item = new QTableWidgetItem(text);
    item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
    return item;
}

} // namespace ibuki

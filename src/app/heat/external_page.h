// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/heat/heat_page.h"
#include "core/heat/disagreement.h"

class QLabel;
class QListWidget;
class QPushButton;
class QScrollArea;

namespace ibuki {

class AccountBars;
class Session;
template <class E> class EntityForm;

/// Results that others published for two of the study's materials, each held against this bench's own.
class ExternalPage : public HeatPage {
    Q_OBJECT

public:
    explicit ExternalPage(Session& session, QWidget* parent = nullptr);
    ~ExternalPage() override;

    void fill(const HeatMatter& matter) override;
    std::string csv() const override;
    QWidget* picture() override;

private:
    QWidget* makeForm();
    void add();
    void remove();
    void showChosen();

    Session& session_;
    QListWidget* list_;
    QPushButton* add_;
    QPushButton* remove_;
    QLabel* reported_;
    AccountBars* bars_;
    QWidget* form_ = nullptr;
    std::unique_ptr<EntityForm<ExternalResult>> fields_;
    std::vector<std::pair<QString, Id<Material>>> mounted_; ///< materials with a R″ of this bench
    bool namesNoMaterials_ = false;                         ///< levels there are, but of no known material
    struct Account {
        ExternalResult read;
        std::optional<Disagreement> found; ///< nothing where one of both was not mounted here
        QString reported;
    };
    std::vector<Account> accounts_;
    std::optional<Id<ExternalResult>> chosen_;
};

} // namespace ibuki

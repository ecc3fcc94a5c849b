// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/header_roles.h"
#include "core/domain/mount.h"

namespace ibuki {

void rememberRoles(Edit& edit, const std::string& fingerprint, const RoleMap& roles) {
    for (const auto& [column, role] : roles) {
        HeaderRole told{{}, fingerprint, column, role};
        for (const HeaderRole* known : edit.document().where(&HeaderRole::fingerprint, fingerprint))
            if (known->column == column) told.id = known->id;
        if (!told.id)
            edit.add(told);
        else if (*edit.document().find(told.id) != told)
            edit.put(told);
    }
}

std::map<std::string, RoleMap> rememberedRoles(const Document& document) {
    std::map<std::string, RoleMap> remembered;
    for (const auto& [id, told] : document.all<HeaderRole>())
        remembered[told.fingerprint][told.column] = told.role;
    return remembered;
}

} // namespace ibuki

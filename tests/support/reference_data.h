// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Public reference data sets used by more than one test.

#include "core/comparison/compare.h"
#include "core/models/anova.h"

namespace ibuki::reference {

/// NIST StRD, SiRstv: silicon resistivity, 5 instruments × 5.
inline const Groups siRstv{{196.3052, 196.1240, 196.1890, 196.2569, 196.3403},
                           {196.3042, 196.3825, 196.1669, 196.3257, 196.0422},
                           {196.1303, 196.2005, 196.2889, 196.0343, 196.1811},
                           {196.2795, 196.1748, 196.1494, 196.1485, 195.9885},
                           {196.2119, 196.1051, 196.1850, 196.0052, 196.2090}};

/// NIST StRD, AtmWtAg: atomic weight of silver, 107.868____.
inline Groups atmWtAg() {
    const std::vector<std::vector<int>> digits{
        {1568, 1465, 1572, 1785, 1446, 1903, 1526, 1494, 1616, 1587, 1519, 1486,
         1419, 1569, 1508, 1672, 1385, 1518, 1662, 1424, 1360, 1333, 1610, 1477},
        {1079, 1344, 1513, 1197, 1604, 1385, 1642, 1365, 1151, 1082, 1517, 1448,
         1198, 1482, 1334, 1609, 1101, 1512, 1469, 1360, 1254, 1261, 1450, 1368}};
    Groups groups;
    for (const auto& part : digits) {
        groups.emplace_back();
        for (int last : part) groups.back().push_back(107.8680000 + last * 1e-7);
    }
    return groups;
}

/// NIST StRD, SmLs01/04/07: 9 × 21 with a common offset of 0, 1e6, 1e12.
inline Groups smLs(double offset) {
    Groups groups;
    for (double mean : {1.4, 1.3, 1.5, 1.3, 1.5, 1.3, 1.5, 1.3, 1.5}) {
        groups.push_back({offset + mean});
        for (int i = 0; i < 10; ++i) {
            groups.back().push_back(offset + mean - 0.1);
            groups.back().push_back(offset + mean + 0.1);
        }
    }
    return groups;
}

/// Dobson 1983, PlantGrowth: control, treatment 1, treatment 2.
inline const Groups plantGrowth{{4.17, 5.58, 5.18, 6.11, 4.50, 4.61, 5.17, 4.53, 5.33, 5.14},
                                {4.81, 4.17, 4.41, 3.59, 5.87, 3.83, 6.03, 4.89, 4.32, 4.69},
                                {6.31, 5.12, 5.54, 5.50, 5.37, 5.29, 4.92, 6.15, 5.80, 5.26}};

/// Four materials, four days, one mount a day, two runs a mount, ΔT in K; docs/methods.md, data set DS1.
inline std::vector<TableRun> ds1() {
    const std::vector<std::pair<const char*, std::vector<std::pair<double, double>>>> all{
        {"A", {{24.69, 24.80}, {24.47, 24.17}, {24.07, 24.04}, {23.78, 23.91}}},
        {"B", {{25.94, 26.00}, {24.57, 24.76}, {25.83, 25.81}, {25.29, 25.21}}},
        {"C", {{26.64, 26.44}, {25.65, 25.65}, {26.10, 26.23}, {25.87, 25.86}}},
        {"D", {{24.71, 24.84}, {24.53, 24.61}, {24.56, 24.43}}}};
    std::vector<TableRun> runs;
    for (const auto& [name, mounts] : all) {
        int day = 0;
        for (const auto& [first, second] : mounts) {
            const std::string mount = "day " + std::to_string(++day);
            runs.push_back({name, mount, first, false, mount, static_cast<double>(day)});
            runs.push_back({name, mount, second, false, mount, static_cast<double>(day)});
        }
    }
    return runs;
}

} // namespace ibuki::reference

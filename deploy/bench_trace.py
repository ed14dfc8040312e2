"""Reference for ./yard bench: a recorded run read and measured in plain Python, no libraries. Prints JSON."""
import csv, json, sys, time

began = time.perf_counter()
path, ratios = sys.argv[1], json.loads(sys.argv[2])
RATE, STEADY, LONGEST = 200.0, 60, 800
with open(path, newline='') as f:
    rows = csv.reader(f)
    head = next(rows)
    at = [head.index(c) for c in ('turbine_rpm', 'output_rpm', 'line_kpa', 'temp_degc')]
    turbine, output, line, temp = [], [], [], []
    for row in rows:
        turbine.append(float(row[at[0]]))
        output.append(float(row[at[1]]))
        line.append(float(row[at[2]]))
        temp.append(float(row[at[3]]))
read = time.perf_counter()
n = len(turbine)
ratio = [t / o if o > 50.0 else 0.0 for t, o in zip(turbine, output)]
forward = [(g, r) for g, r in ratios.items() if r > 0]


def gear_of(r):
    for g, want in forward:
        if abs(r / want - 1.0) < 0.02:
            return g
    return None


dwells, start, here = [], 0, None
for k in range(n + 1):
    g = gear_of(ratio[k]) if k < n else None
    if g != here:
        if here is not None and k - start >= STEADY:
            part = ratio[start:k]
            dwells.append((here, start, k, sum(part) / len(part), min(line[start:k]), max(line[start:k])))
        here, start = g, k


def crossing(first, last, level, rising):
    for k in range(first + 1, last):
        a, b = ratio[k - 1], ratio[k]
        if (a <= level < b) if rising else (a >= level > b):
            return (k - 1 + (level - a) / (b - a)) / RATE
    return None


shifts = []
for (g, s, e, r, _, _), (h, s2, e2, r2, _, _) in zip(dwells, dwells[1:]):
    if g == h or s2 - e > LONGEST:
        continue
    a = crossing(max(s, e - 20), min(e2, s2 + 20), r + 0.1 * (r2 - r), r2 > r)
    b = crossing(max(s, e - 20), min(e2, s2 + 20), r + 0.9 * (r2 - r), r2 > r)
    if a is not None and b is not None:
        rise = (output[s2] - output[e]) / max(1, s2 - e)
        dip = min(output[k] / (output[e] + rise * (k - e)) for k in range(e, s2 + 1))
        shifts.append([g, h, a, b - a, max(0.0, 100.0 * (1.0 - dip))])
mean_k, mean_t = (n - 1) / 2.0, sum(temp) / n
slope = sum((k - mean_k) * (v - mean_t) for k, v in enumerate(temp)) / sum((k - mean_k) ** 2 for k in range(n))
print(json.dumps({
    'read': read - began, 'all': time.perf_counter() - began, 'gears': [[d[0], d[3]] for d in dwells], 'shifts': shifts,
    'rise': slope * RATE * 60.0, 'line': max(d[5] for d in dwells),
}))

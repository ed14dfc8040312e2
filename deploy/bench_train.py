"""Reference for ./yard bench: speeds of a planetary train by plain Gaussian elimination, no libraries. Prints microseconds a gear."""
import json, sys, time

train = json.load(sys.stdin)
rounds = int(sys.argv[1])
nodes = []
for s in train['sets']:
    for m in ('sun', 'ring', 'carrier'):
        if s[m] != 'case' and s[m] not in nodes: nodes.append(s[m])
for e in train['elements']:
    for m in ('a', 'b'):
        if e[m] != 'case' and e[m] not in nodes: nodes.append(e[m])
elements = {e['id']: e for e in train['elements']}


def solve(gear):
    n = len(nodes)
    at = {x: i for i, x in enumerate(nodes)}
    rows = []

    def row(terms, rhs=0.0):
        r = [0.0] * (n + 1)
        for node, c in terms:
            if node != 'case': r[at[node]] += c
        r[n] = rhs
        rows.append(r)
    for s in train['sets']:
        S, R = s['sunTeeth'], s['ringTeeth']
        row([(s['sun'], S), (s['ring'], R if s['kind'] == 'simple' else -R), (s['carrier'], -(S + R) if s['kind'] == 'simple' else R - S)])
    for id in gear['applied']:
        row([(elements[id]['a'], 1.0), (elements[id]['b'], -1.0)])
    row([(train['input'], 1.0)], 1.0)
    pivot = 0
    for c in range(n):
        best = max(range(pivot, len(rows)), key=lambda r: abs(rows[r][c]), default=None)
        if best is None or pivot >= len(rows) or abs(rows[best][c]) < 1e-12: continue
        rows[pivot], rows[best] = rows[best], rows[pivot]
        p = rows[pivot]
        for r in range(len(rows)):
            if r != pivot and rows[r][c] != 0.0:
                f = rows[r][c] / p[c]
                rows[r] = [x - f * y for x, y in zip(rows[r], p)]
        pivot += 1
    return rows


start = time.perf_counter()
for _ in range(rounds):
    for gear in train['gears']: solve(gear)
print((time.perf_counter() - start) / rounds / len(train['gears']) * 1e6)

# Reference for ./yard bench: a recorded run read and measured in R, vectors throughout. Prints JSON.
began <- proc.time()[["elapsed"]]
args <- commandArgs(TRUE)
ratios <- eval(parse(text = args[2]))
RATE <- 200; STEADY <- 60; LONGEST <- 800
d <- read.csv(args[1], colClasses = "numeric")
read <- proc.time()[["elapsed"]]
n <- nrow(d)
ratio <- ifelse(d$output_rpm > 50, d$turbine_rpm / d$output_rpm, 0)
forward <- ratios[ratios > 0]
gear <- integer(n)
for (i in seq_along(forward)) gear[gear == 0 & abs(ratio / forward[i] - 1) < 0.02] <- i
runs <- rle(gear)
ends <- cumsum(runs$lengths); starts <- ends - runs$lengths + 1
keep <- runs$values > 0 & runs$lengths >= STEADY
g <- runs$values[keep]; s <- starts[keep]; e <- ends[keep] + 1
r <- mapply(function(a, b) mean(ratio[a:(b - 1)]), s, e)
top <- mapply(function(a, b) max(d$line_kpa[a:(b - 1)]), s, e)
crossing <- function(first, last, level, rising) {
  x <- ratio[first:last]
  a <- x[-length(x)]; b <- x[-1]
  k <- if (rising) which(a <= level & level < b) else which(a >= level & level > b)
  if (length(k) == 0) NA else (first - 1 + k[1] - 1 + (level - a[k[1]]) / (b[k[1]] - a[k[1]])) / RATE
}
shifts <- character(0)
for (i in seq_len(length(g) - 1)) {
  if (g[i] == g[i + 1] || s[i + 1] - e[i] > LONGEST) next
  first <- max(s[i], e[i] - 20); last <- min(e[i + 1], s[i + 1] + 20, n)
  up <- r[i + 1] > r[i]
  a <- crossing(first, last, r[i] + 0.1 * (r[i + 1] - r[i]), up)
  b <- crossing(first, last, r[i] + 0.9 * (r[i + 1] - r[i]), up)
  if (is.na(a) || is.na(b)) next
  k <- e[i]:s[i + 1]
  o <- d$output_rpm
  dip <- min(o[k] / (o[e[i]] + (o[s[i + 1]] - o[e[i]]) * (k - e[i]) / max(1, s[i + 1] - e[i])))
  shifts <- c(shifts, sprintf('["%s","%s",%.6f,%.6f,%.4f]', names(forward)[g[i]], names(forward)[g[i + 1]],
    a, b - a, max(0, 100 * (1 - dip))))
}
k <- seq_len(n) - 1
slope <- sum((k - mean(k)) * (d$temp_degc - mean(d$temp_degc))) / sum((k - mean(k))^2)
now <- proc.time()[["elapsed"]]
cat(sprintf(
  '{"read":%f,"all":%f,"gears":[%s],"shifts":[%s],"rise":%f,"line":%f}', read - began, now - began,
  paste(sprintf('["%s",%.8f]', names(forward)[g], r), collapse = ","), paste(shifts, collapse = ","),
  slope * RATE * 60, max(top)))

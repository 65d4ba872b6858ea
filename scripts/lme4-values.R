# Usage: Rscript lme4-values.R <folder of ratings> <file of values>
# Variances and predictions by lme4; standard errors from Henderson's mixed model equations, built and inverted in full.
suppressMessages(library(lme4))
arguments <- commandArgs(trailingOnly = TRUE)
tight <- lmerControl(optimizer = "nloptwrap", calc.derivs = FALSE,
                     optCtrl = list(xtol_abs = 1e-12, ftol_abs = 1e-14, maxeval = 5000))

number <- function(x) paste0("[", paste(sprintf("%.12g", x), collapse = ","), "]")
text <- function(x) if (length(x) == 0) "[]" else paste0("[", paste0('"', x, '"', collapse = ","), "]")

# How many drafts and reviewers are kept; of a large course a few say enough.
KEPT <- 40

values <- function(name, x, seed, ratings = "") {
  hasItems <- length(unique(x$item)) > 1
  x$review <- interaction(x$reviewer, x$draft, drop = TRUE)
  x$item <- factor(x$item, levels = unique(x$item))
  model <- if (hasItems) score ~ 0 + item + (1 | draft) + (1 | reviewer) + (1 | review)
           else score ~ 1 + (1 | draft) + (1 | reviewer)
  took <- system.time(fit <- suppressMessages(lmer(model, x, REML = TRUE, control = tight)))[["elapsed"]]
  v <- as.data.frame(VarCorr(fit))
  variance <- function(group) { found <- v$vcov[v$grp == group]; if (length(found)) found else 0 }
  draft <- ranef(fit)$draft; reviewer <- ranef(fit)$reviewer
  drafts <- head(rownames(draft), KEPT); reviewers <- head(rownames(reviewer), KEPT)
  se <- ""
  if (nrow(x) < 1000) {
    X <- getME(fit, "X")
    x$draft <- factor(x$draft, levels = rownames(draft))
    x$reviewer <- factor(x$reviewer, levels = rownames(reviewer))
    Zd <- model.matrix(~ 0 + draft, x)
    Zr <- model.matrix(~ 0 + reviewer, x)
    Z <- cbind(Zd, Zr); G <- c(rep(variance("draft"), ncol(Zd)), rep(variance("reviewer"), ncol(Zr)))
    if (hasItems) { Zw <- model.matrix(~ 0 + review, x); Z <- cbind(Z, Zw); G <- c(G, rep(variance("review"), ncol(Zw))) }
    # An effect without variance is none; the equations are written for those that have one.
    kept <- G > 1e-12; Z <- Z[, kept]; G <- G[kept]
    W <- cbind(X, Z); p <- ncol(X)
    C <- crossprod(W) / variance("Residual")
    C[cbind(p + seq_along(G), p + seq_along(G))] <- C[cbind(p + seq_along(G), p + seq_along(G))] + 1 / G
    inverse <- solve(C)
    rownames(inverse) <- colnames(inverse) <- c(paste0("x", seq_len(p)), colnames(Z))
    mean_and <- function(id) {
      k <- rep(0, nrow(inverse)); k[seq_len(p)] <- 1 / p
      at <- match(paste0("draft", id), colnames(inverse)); if (!is.na(at)) k[at] <- 1
      sqrt(drop(t(k) %*% inverse %*% k))
    }
    of <- function(id) { at <- match(paste0("reviewer", id), colnames(inverse)); if (is.na(at)) 0 else sqrt(inverse[at, at]) }
    se <- sprintf(',"draftErrors":%s,"reviewerErrors":%s', number(sapply(drafts, mean_and)), number(sapply(reviewers, of)))
  }
  sprintf('{"name":"%s","seed":%s,"seconds":%.3g,"items":%s,"fixed":%s,"variances":%s,"drafts":%s,"draftEffects":%s,"reviewers":%s,"reviewerEffects":%s%s%s}',
    name, seed, took, text(if (hasItems) levels(x$item) else character(0)), number(fixef(fit)),
    number(c(variance("draft"), variance("reviewer"), variance("review"), variance("Residual"))),
    text(drafts), number(draft[drafts, 1]), text(reviewers), number(reviewer[reviewers, 1]), se, ratings)
}

found <- c()
for (file in sort(list.files(arguments[1], "csv$", full.names = TRUE))) {
  name <- readLines(sub("csv$", "txt", file), warn = FALSE)
  seed <- sub(".*/(\\d+)\\.csv$", "\\1", file)
  found <- c(found, values(name, read.csv(file, colClasses = c("character", "character", "character", "numeric")), seed))
}
# Davies, O. L. and Goldsmith, P. L. (1972), Statistical Methods in Research and Production, as lme4 has them: 24 plates, 6 samples.
P <- Penicillin
x <- data.frame(reviewer = as.character(P$sample), draft = as.character(P$plate), item = "", score = P$diameter)
stored <- sprintf(',"ratings":[%s]', paste(sprintf('["%s","%s",%g]', x$reviewer, x$draft, x$score), collapse = ","))
found <- c(found, values("Penicillin", x, "null", stored))
version <- sprintf("R %s, lme4 %s", getRversion(), packageVersion("lme4"))
writeLines(sprintf('{"made":"%s","sets":[\n%s\n]}', version, paste(found, collapse = ",\n")), arguments[2])

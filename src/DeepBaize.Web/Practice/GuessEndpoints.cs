using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Practice;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Positions;
using DeepBaize.Data.Practice;
using DeepBaize.Web.InHand;
using DeepBaize.Web.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Practice;

/// <summary>A guess that was made before the stroke was shown.</summary>
public sealed record GuessEntry
{
    public required GuessKind Kind { get; init; }

    [Description("Distance between guess and answer, m: the mean of several; null of a ball.")]
    public double? Error { get; init; }

    [Description("Of a ball: whether it was the right one.")]
    public bool? IsRight { get; init; }

    [Description("Of a layout that was drawn: its seed.")]
    public int? Seed { get; init; }
}

/// <summary>A guess as it was kept.</summary>
public sealed record GuessResult(Guid Id, DateTimeOffset At, GuessKind Kind, double? Error, bool? IsRight, int? Seed)
{
    public static GuessResult Of(Guess g) => new(g.Id, g.At, g.Kind, g.Error, g.IsRight, g.Seed);
}

/// <summary>How a player's guesses get better.</summary>
/// <param name="Count">Of all guesses.</param>
/// <param name="Last">The last of them, the newest first.</param>
/// <param name="Lately">Mean error of the last <see cref="GuessEndpoints.Few"/> with one, m; null without any.</param>
/// <param name="Before">Mean error of those before them, m; null without any.</param>
public sealed record GuessSummary(int Count, IReadOnlyList<GuessResult> Last, double? Lately, double? Before);

/// <summary>A layout to guess at, with its stroke.</summary>
public sealed record GuessLayout(int Seed, IReadOnlyList<BallEntry> Balls, StrokeEntry Stroke);

/// <summary>Guesses of where the white goes: kept by player, and layouts to guess at.</summary>
public static class GuessEndpoints
{
    /// <summary>Number of guesses whose mean is told.</summary>
    public const int Few = 20;
    private const int Listed = 40;

    public static void MapGuesses(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/guesses").WithTags("Practice").ProducesProblem(400).ProducesProblem(503);
        group.MapGet("", Summary).WithName("guesses").WithSummary("How the guesses of the player in hand get better");
        group.MapPost("", Create).Creates("guess").WithName("createGuess").WithSummary("Keeps a guess");
        group
            .MapGet("/layout", Layout)
            .WithName("guessLayout")
            .WithSummary("A pot with its stroke to guess at; equal seeds, equal layouts");
    }

    private static async Task<GuessSummary> Summary(DeepBaizeContext db, CancellationToken cancel)
    {
        var inHand = await db.InHandAsync(cancel);
        var mine = db.Guesses.AsNoTracking().Where(g => g.OwnerId == User.LocalId && g.PlayerId == inHand.PlayerId);
        var last = await mine.OrderByDescending(g => g.At).ThenBy(g => g.Id).Take(2 * Listed).ToListAsync(cancel);
        var errors = last.Where(g => g.Error is not null).Select(g => g.Error!.Value).ToList();
        double? Mean(IEnumerable<double> of) => of.Any() ? of.Average() : null;
        return new(
            await mine.CountAsync(cancel),
            [.. last.Take(Listed).Select(GuessResult.Of)],
            Mean(errors.Take(Few)),
            Mean(errors.Skip(Few).Take(Few))
        );
    }

    private static async Task<Created<GuessResult>> Create(
        GuessEntry entry,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var checks = new Checks();
        var isBall = entry.Kind == GuessKind.Ball;
        if (isBall)
            checks.That(entry.IsRight is not null, "isRight", "Whether it was right is not said.", "true or false");
        else
            checks.Range("error", entry.Error ?? double.NaN, 0, 5, " m");
        checks.That(isBall || entry.IsRight is null, "isRight", "Only a ball is right or wrong.", "left out");
        checks.That(!isBall || entry.Error is null, "error", "A ball has no distance.", "left out");
        checks.ThrowIfAny();
        var inHand = await db.InHandAsync(cancel);
        var guess = new Guess
        {
            OwnerId = User.LocalId,
            PlayerId = inHand.PlayerId,
            At = time.GetUtcNow(),
            Kind = entry.Kind,
            Error = entry.Error,
            IsRight = entry.IsRight,
            Seed = entry.Seed,
        };
        return await db.CreateAsync(guess, g => $"/api/guesses/{g.Id}", GuessResult.Of, cancel);
    }

    private static GuessLayout Layout(int seed, CancellationToken cancel)
    {
        var step = GuessDraw.Of(seed, new TableShape(Conditions.Default), cancel);
        var pot = step.Stroke.Pot!;
        return new(
            seed,
            [
                .. step.Balls.Select(b => new BallEntry
                {
                    Id = b.Id,
                    X = b.X,
                    Y = b.Y,
                }),
            ],
            new()
            {
                Height = step.Stroke.Height,
                Side = step.Stroke.Side,
                Pace = step.Stroke.Pace,
                Pot = new() { Ball = pot.Ball, Pocket = pot.Pocket },
            }
        );
    }
}

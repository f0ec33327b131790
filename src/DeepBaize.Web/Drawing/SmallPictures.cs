using System.Collections.Concurrent;
using DeepBaize.Core;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Practice;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Shots;

namespace DeepBaize.Web.Drawing;

/// <summary>What a small plan draws of a stroke: the white's way, and the line of the pot. Empty where there is none. m.</summary>
public sealed record SmallPicture(IReadOnlyList<PlaceResult> White, IReadOnlyList<PlaceResult> Pot);

/// <summary>Small plans for lists, each worked out once: a stroke is played for it.</summary>
public static class SmallPictures
{
    /// <summary>More than a club keeps; where there are more, all are forgotten and worked out anew.</summary>
    private const int Most = 4000;

    /// <summary>Tolerance of a line that is drawn some 300 px wide, m.</summary>
    private const double Tolerance = 0.006;
    private static readonly SmallPicture None = new([], []);
    private static readonly ConcurrentDictionary<string, SmallPicture> Known = [];

    /// <summary>Returns the picture of a stored position.</summary>
    public static SmallPicture Of(Position position) =>
        OfKey($"{position.Id} {position.Version}", () =>
        {
            var content = CheckedContent.Of(position.Content);
            var aimed = content.Aimed();
            return Draw(content.Layout, aimed?.Stroke ?? content.Stroke, aimed?.Cut, content.Shape);
        });

    /// <summary>Returns the picture of a routine's first step; a run has none, for each player plays it otherwise.</summary>
    public static SmallPicture Of(string id, uint? version, Step step) =>
        step.IsRun
            ? None
            : OfKey($"{id} {version}", () =>
            {
                var shape = new TableShape(Conditions.Default);
                var layout = step.LayoutOn(shape);
                var cut = step.PotIn(layout) is { } pot ? Cut.Of(layout, pot, shape) : (Cut?)null;
                return Draw(layout, step.StrokeOn(layout, shape, Player.Default), cut, shape);
            });

    private static SmallPicture OfKey(string key, Func<SmallPicture> draw)
    {
        if (Known.TryGetValue(key, out var picture))
            return picture;
        if (Known.Count > Most)
            Known.Clear();
        try
        {
            picture = draw();
        }
        catch (InputException)
        {
            // What was kept before a rule was made may not be playable: its balls are drawn all the same.
            picture = None;
        }
        return Known[key] = picture;
    }

    private static SmallPicture Draw(Layout layout, in Stroke stroke, in Cut? cut, TableShape shape)
    {
        var (simulator, record) = (new Simulator(shape), new ShotRecord());
        stroke.Play(simulator, layout, record);
        var white = ShotPath.Points(record, layout.Balls.Count, Tolerance)[0];
        var legs = cut?.Legs.ToList() ?? [];
        return new(
            [.. white.Select(p => Rounded(p.At))],
            legs.Count == 0 ? [] : [Rounded(legs[0].From), .. legs.Select(l => Rounded(l.To))]
        );
    }

    private static PlaceResult Rounded(Vec2 at) => new(Math.Round(at.X, 3), Math.Round(at.Y, 3));
}

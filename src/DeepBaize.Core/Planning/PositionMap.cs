using DeepBaize.Core.Rules;
using DeepBaize.Core.Shots;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Planning;

/// <summary>One step of the map.</summary>
/// <param name="Share">Of the best place's worth that is reached inside.</param>
/// <param name="Outlines">Closed polygons, m; holes run the other way round.</param>
public sealed record Band(double Share, IReadOnlyList<IReadOnlyList<PathPoint>> Outlines);

/// <summary>Where to be for the next ball: what every place of the white is worth, by <see cref="Worth"/>.</summary>
/// <param name="Best">The best place, m; null if nothing can be potted from anywhere.</param>
public sealed record PositionMap((double X, double Y)? Best, IReadOnlyList<Band> Bands)
{
    private const double Step = 0.03;

    /// <summary>An outline may be drawn so far off, m.</summary>
    private const double Smooth = 0.004;

    /// <summary>Even steps.</summary>
    private static readonly double[] Shares = [0.5, 0.6, 0.7, 0.8, 0.9];

    /// <summary>An area to aim for is worth at least this share of the place that is meant.</summary>
    private const double GoodEnough = 0.92;

    /// <param name="only">The ball that is meant; null for any that is on.</param>
    public static PositionMap Of(Situation situation, Skill skill, Player player, TableShape shape, PlanPreferences preferences, Func<Ball, bool>? only = null, CancellationToken cancel = default)
    {
        var grid = new Grid(situation, new(skill, player, preferences), new(situation.Layout, shape), shape, only, 0, 0, Length, Width, cancel);
        return new(grid.Best, grid.Best is null ? [] : [.. Shares.Select(s => new Band(s, grid.Outlines(s * grid.BestValue)))]);
    }

    /// <summary>The outline of the good places round one, of those that are worth nearly as much; it may be empty.</summary>
    /// <param name="only">The ball that is meant; null for any that is on.</param>
    internal static IReadOnlyList<PathPoint> AreaRound(Situation situation, Worth worth, PotLines lines, TableShape shape, Func<Ball, bool>? only, CancellationToken cancel)
    {
        const double reach = 0.5;
        var (x, y) = (situation.Layout.White.X, situation.Layout.White.Y);
        var value = worth.At(situation, lines, x, y, situation.Layout, only).Value;
        if (value <= 0) return [];
        var grid = new Grid(situation, worth, lines, shape, only, Math.Max(0, x - reach), Math.Max(0, y - reach), Math.Min(Length, x + reach), Math.Min(Width, y + reach), cancel);
        return grid.Outlines(GoodEnough * value).FirstOrDefault(o => Contours.Contains(o, x, y)) ?? [];
    }

    /// <summary>Values on a grid of places, with a rim of nothing around.</summary>
    private sealed class Grid
    {
        private readonly double[] _values;
        private readonly int _columns;
        private readonly double _x, _y;

        public Grid(Situation situation, Worth worth, PotLines lines, TableShape shape, Func<Ball, bool>? only, double fromX, double fromY, double toX, double toY, CancellationToken cancel)
        {
            (_x, _y) = (fromX, fromY);
            _columns = (int)Math.Ceiling((toX - fromX) / Step) + 3;
            var rows = (int)Math.Ceiling((toY - fromY) / Step) + 3;
            _values = new double[_columns * rows];
            Parallel.For(1, rows - 1, new() { CancellationToken = cancel, MaxDegreeOfParallelism = Environment.ProcessorCount }, j =>
            {
                for (var i = 1; i < _columns - 1; i++)
                {
                    // Up against a cushion or a ball the nearest place where the white can lie stands for the one on the grid.
                    var (px, py) = (Math.Clamp(At(i, j).X, BallRadius, Length - BallRadius), Math.Clamp(At(i, j).Y, BallRadius, Width - BallRadius));
                    if (!shape.CanRest(px, py) || Covered(situation.Layout, px, py)) continue;
                    _values[j * _columns + i] = Math.Max(0, worth.At(situation, lines, px, py, only: only).Value);
                }
            });
            var best = Array.IndexOf(_values, _values.Max());
            BestValue = _values[best];
            if (BestValue > 0) Best = (At(best % _columns, best / _columns).X, At(best % _columns, best / _columns).Y);
        }

        public double BestValue { get; }
        public (double X, double Y)? Best { get; }

        public IReadOnlyList<IReadOnlyList<PathPoint>> Outlines(double level) =>
            [.. Contours.Trace(_values, _columns, level, (i, j) => At(i, j) is var (_, x, y) ? new(0, Math.Clamp(x, 0, Length), Math.Clamp(y, 0, Width)) : default).Select(o => Contours.Simplified(o, Smooth))];

        private PathPoint At(double i, double j) => new(0, _x + (i - 1) * Step, _y + (j - 1) * Step);

        private static bool Covered(Layout layout, double x, double y)
        {
            for (var slot = 1; slot < layout.Balls.Count; slot++)
                if (Layout.Gap(x, y, layout.Balls[slot]) < 0) return true;
            return false;
        }
    }
}

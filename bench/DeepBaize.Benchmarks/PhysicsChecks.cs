using System.Diagnostics;
using System.Globalization;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Benchmarks;

/// <summary>
/// What the simulator must keep to whatever is played, over far more strokes than a test has time for; and whether strokes into a pack that
/// are played coarsely end where fine ones do. For the tables of docs/model.md:
/// <c>dotnet run -c Release --project bench/DeepBaize.Benchmarks -- physics [strokes]</c>.
/// </summary>
public static class PhysicsChecks
{
    private const int Rests = 4000,
        Batch = 1000;

    private static readonly TableShape Shape = new(Conditions.Default);

    public static void Run(string path, int strokes)
    {
        List<string> lines =
        [
            "| strokes | played | energy gained | hardly ended | overlap left, µm | off the table | in flight, mean landings a stroke |",
            "|---|---|---|---|---|---|---|",
        ];
        foreach (var kind in (string[])["any", "raised butt", "full pack"])
            lines.Add(Random(kind, strokes / 3));
        lines.Add("");
        lines.Add("| white after | skill | strokes | coarse − fine, up the table, mm | Kolmogorov–Smirnov | chance gives, 19 of 20 |");
        lines.Add("|---|---|---|---|---|---|");
        foreach (var skill in (string[])["county", "club"])
            foreach (var (name, layout, stroke) in IntoPacks())
                lines.Add(Compare(name, skill, layout, stroke));
        DocTable.Write(path, "physics", lines);
        Console.WriteLine(string.Join('\n', lines));
    }

    private readonly record struct Tally(int Gained, int Endless, double Overlap, int Off, long Landings);

    private static string Random(string kind, int strokes)
    {
        var tallies = Workers.Shared().InParallel((strokes + Batch - 1) / Batch, i => Played(kind, i));
        return string.Create(
            CultureInfo.InvariantCulture,
            $"| {kind} | {tallies.Count * Batch:N0} | {tallies.Sum(t => t.Gained)} | {tallies.Sum(t => t.Endless)} "
                + $"| {tallies.Max(t => t.Overlap) * 1e6:0.0} | {tallies.Sum(t => t.Off):N0} "
                + $"| {(double)tallies.Sum(t => t.Landings) / tallies.Count / Batch:0.0} |"
        );
    }

    private static Tally Played(string kind, int batch)
    {
        var random = new Random(1_000_000 * kind.Length + batch);
        double Between(double from, double to) => from + random.NextDouble() * (to - from);
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        var (gained, endless, overlap, off, landings) = (0, 0, 0.0, 0, 0L);
        for (var i = 0; i < Batch; i++)
        {
            var balls = kind == "full pack" ? PackWith(Between) : Scattered(random.Next(2, 16), Between);
            simulator.Place([.. balls]);
            var (reach, clock) = (Between(0, 0.5), Between(0, 2 * Math.PI));
            var strike = Strike.Create(
                kind == "full pack" ? (balls[7].At - balls[0].At).Direction.Degrees + Between(-12, 12) : Between(0, 360),
                Between(0.2, Strike.MaxCueSpeed),
                reach * Math.Cos(clock),
                reach * Math.Sin(clock),
                kind == "raised butt" ? Between(3, Strike.MaxElevationDegrees) : Between(0, 5)
            );
            var (energy, rose) = (double.PositiveInfinity, false);
            simulator.AfterEvent = _ =>
            {
                rose |= simulator.Energy > energy * (1 + 1e-6) + 1e-12;
                energy = simulator.Energy;
            };
            simulator.Play(strike, record);
            gained += rose ? 1 : 0;
            endless += simulator.EventCount > Simulator.MaxEvents / 4 ? 1 : 0;
            landings += record.Events.Count(e => e.Kind == ShotEventKind.Bed);
            for (var a = 0; a < simulator.Count; a++)
            {
                off += simulator.IsOff(a) ? 1 : 0;
                for (var b = 0; b < a; b++)
                    if (simulator.IsOnTable(a) && simulator.IsOnTable(b))
                        overlap = Math.Max(overlap, 2 * BallRadius - simulator.At(a).DistanceTo(simulator.At(b)));
            }
        }
        return new(gained, endless, overlap, off, landings);
    }

    private static List<PlacedBall> Scattered(int count, Func<double, double, double> between)
    {
        var balls = new List<PlacedBall>();
        while (balls.Count < count)
        {
            var at = new Vec2(between(BallRadius, Length - BallRadius), between(BallRadius, Width - BallRadius));
            if (Shape.CanRest(at) && balls.All(b => b.Gap(at) >= 0))
                balls.Add(new(Ball.FromIndex(balls.Count), at));
        }
        return balls;
    }

    private static List<PlacedBall> PackWith(Func<double, double, double> between)
    {
        List<PlacedBall> others = [.. Rack.Colours(), .. Rack.Pack()];
        while (true)
        {
            var at = new Vec2(between(1.9, Length - BallRadius), between(BallRadius, Width - BallRadius));
            if (others.All(b => b.Gap(at) > 0.01))
                return [new(Ball.White, at), .. others];
        }
    }

    // ---- Coarse against fine -------------------------------------------------------------------------------------

    private static IEnumerable<(string Name, Layout Layout, Stroke Stroke)> IntoPacks()
    {
        List<PlacedBall> others = [.. Rack.Colours(), .. Rack.Pack()];
        var high = Layout.OfRest([new(Ball.White, 3.03, 1.12), .. others.SkipLast(1)]);
        yield return ("a follow off the black into the pack", high, new(-42.5, 0, 0.8, Pace.OfCueSpeed(1.97), 3));
        var behind = Layout.OfRest([new(Ball.White, 3.3, 0.4), .. others]);
        yield return (
            "a stroke into the side of the pack",
            behind,
            new((others[12].At - behind.White.At).Direction.Degrees, 0, 0, Pace.OfCueSpeed(1.68), 3)
        );
        var baulk = Layout.OfRest([new(Ball.White, BaulkLineX, Width / 2 - 0.2), .. others]);
        var aim = (others[6].At - baulk.White.At).Direction.Degrees - 0.6;
        yield return ("a break-off", baulk, new(aim, 0, 0, Pace.OfCueSpeed(2.7), 3));
    }

    private static string Compare(string name, string skill, Layout layout, Stroke stroke)
    {
        List<double> RestsOf(double neglected, string stream)
        {
            var (simulator, rests) = (new Simulator(Shape, neglected), new List<double>());
            var scatter = Scatter.Of(layout, stroke, Skill.Named(skill), Shape);
            for (var i = 0; i < Rests; i++)
            {
                scatter.Error(ErrorStream.Named(stream).At(i)).Play(simulator, layout, stroke, null);
                if (simulator.IsOnTable(0))
                    rests.Add(simulator.X(0));
            }
            rests.Sort();
            return rests;
        }
        // Other strokes of the same player: what is alike is their distribution.
        var (fine, coarse) = (RestsOf(Simulator.Fine, "fine"), RestsOf(Simulator.Coarse, "coarse"));
        var apart = fine.Concat(coarse).Max(x => Math.Abs(Below(fine, x) - Below(coarse, x)));
        var chance = 1.36 * Math.Sqrt((double)(fine.Count + coarse.Count) / fine.Count / coarse.Count);
        return string.Create(
            CultureInfo.InvariantCulture,
            $"| {name} | {skill} | 2 × {Rests:N0} | {1000 * (coarse.Average() - fine.Average()):0.0} | {apart:0.000} | {chance:0.000} |"
        );

        static double Below(List<double> sorted, double x)
        {
            var at = sorted.BinarySearch(x);
            return (double)(at < 0 ? ~at : at + 1) / sorted.Count;
        }
    }
}

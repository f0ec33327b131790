using System.ComponentModel;
using System.Globalization;
using System.Text;
using DeepBaize.Core;
using DeepBaize.Core.Learning;
using DeepBaize.Data;
using DeepBaize.Data.Devices;
using DeepBaize.Web.InHand;
using DeepBaize.Web.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Devices;

/// <summary>A reading of the cue.</summary>
public sealed record CueSampleEntry
{
    [Description("s.")]
    public required double Time { get; init; }

    [Description("m or m/s².")]
    public required double Value { get; init; }
}

/// <summary>A stroke of the cue as it was measured.</summary>
public sealed record CueMotionEntry
{
    public CueMeasure Measure { get; init; }
    public required IReadOnlyList<CueSampleEntry> Samples { get; init; }

    [Description("When the tip met the ball, if somebody saw it, s.")]
    public double? Contact { get; init; }

    internal CueMotion Checked() => CueMotion.Create(Measure, [.. Samples.Select(s => new CueSample(s.Time, s.Value))], Contact);
}

/// <summary>A stroke of the cue to keep with the player in hand.</summary>
public sealed record KeepCueRequest
{
    [Description("sensor, film or standIn.")]
    public CueSource Source { get; init; }
    public required CueMotionEntry Motion { get; init; }
}

/// <summary>What measured a stroke of the cue.</summary>
public enum CueSource
{
    Sensor,
    Film,
    StandIn,
}

/// <summary>The timing of a stroke. Times in s after the first reading, lengths in m, speeds in m/s.</summary>
/// <param name="Curve">Time, speed, acceleration.</param>
/// <param name="Loss">Share of its speed that the cue lost to the ball.</param>
/// <param name="PeakBefore">How long before the contact the speed had its peak; negative: it would have had it so much later.</param>
/// <param name="Dips">How often the speed falls back on the way.</param>
/// <param name="FilterWindow">What is shorter is not told apart; its lag, half of it, is taken out.</param>
public sealed record TimingResult(
    IReadOnlyList<double[]> Curve,
    MeasuredResult? Contact,
    MeasuredResult Speed,
    double? Loss,
    SpeedAtContact AtContact,
    MeasuredResult? PeakBefore,
    CuePhaseResult? Backswing,
    CuePhaseResult? Pause,
    CuePhaseResult? Delivery,
    CuePhaseResult? FollowThrough,
    int Dips,
    double? Smoothness,
    double FilterWindow
)
{
    public static TimingResult Of(StrokeTiming t)
    {
        static double Rounded(double v) => Math.Round(v, 4);
        static CuePhaseResult? Phase(CuePhase? p) => p is { } x ? new(Rounded(x.From), Rounded(x.To), Rounded(x.Length)) : null;
        // As many points as a picture shows.
        var every = Math.Max(1, t.Curve.Count / 300);
        return new(
            [
                .. t
                    .Curve.Where((_, i) => i % every == 0)
                    .Select(p => new[] { Rounded(p.Time), Rounded(p.Speed), Math.Round(p.Acceleration, 2) }),
            ],
            MeasuredResult.Of(t.Contact),
            MeasuredResult.Of(t.Speed)!,
            t.Loss,
            t.AtContact,
            MeasuredResult.Of(t.PeakBefore),
            Phase(t.Backswing),
            Phase(t.Pause),
            Phase(t.Delivery),
            Phase(t.FollowThrough),
            t.Dips,
            t.Smoothness,
            t.FilterWindow
        );
    }
}

/// <summary>A figure with the standard deviation of its error.</summary>
public sealed record MeasuredResult(double Value, double Doubt)
{
    public static MeasuredResult? Of(Measured? measured) => measured is { } m ? new(Math.Round(m.Value, 5), Math.Round(m.Doubt, 5)) : null;
}

/// <summary>A part of a stroke: s, s, m.</summary>
public sealed record CuePhaseResult(double From, double To, double Length);

/// <summary>A stroke that is kept.</summary>
public sealed record CueStrokeResult(Guid Id, DateTimeOffset At, string Source, TimingResult Timing, uint Version)
{
    public static CueStrokeResult Of(CueStroke s) => new(s.Id, s.At, s.Source, TimingResult.Of(CueEndpoints.TimingOf(s)), s.Version);
}

/// <summary>Strokes of a week.</summary>
/// <param name="Monday">Its first day.</param>
/// <param name="Told">Strokes of which it is known what the speed did at the contact.</param>
/// <param name="PastPeak">Of these, those that were slowing.</param>
/// <param name="PeakBefore">Mean, s; null if no stroke tells it.</param>
public sealed record CueWeek(DateOnly Monday, int Strokes, int Told, int PastPeak, double? PeakBefore, double Speed, double? Smoothness);

/// <summary>What is kept of the player in hand.</summary>
public sealed record CueStrokes(IReadOnlyList<CueStrokeResult> Strokes, IReadOnlyList<CueWeek> Weeks);

/// <summary>Strokes to set beside one another.</summary>
public sealed record CueCompareRequest
{
    public required IReadOnlyList<Guid> Ids { get; init; }
}

/// <summary>Strokes of the cue: read, kept with the player in hand, compared.</summary>
public static class CueEndpoints
{
    private const int Shown = 60,
        OfWeeks = 300,
        MostKept = 5000;

    private static readonly RecordKind Kind = new("stroke", "It may have been deleted already.", "Look at it again.");

    public static void MapCueStrokes(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/cue").WithTags("Devices").ProducesProblem(400).ProducesProblem(503);
        group
            .MapPost("/read", (CueMotionEntry entry) => TimingResult.Of(StrokeTiming.Of(entry.Checked())))
            .WithName("readCueStroke")
            .WithSummary("The timing of a stroke of the cue; nothing is kept");
        group
            .MapPost("/read/csv", async (HttpRequest request, CancellationToken cancel) => await ReadCsvAsync(request, cancel))
            .WithName("readCueCsv")
            .WithSummary("The readings in a CSV file: a line each, columns time and travel or acceleration")
            .Accepts<string>("text/csv");
        group
            .MapPost("/strokes", Keep)
            .Creates(Kind.Name)
            .WithName("keepCueStroke")
            .WithSummary("Keeps a stroke of the cue with the player in hand");
        group.MapGet("/strokes", List).WithName("listCueStrokes").WithSummary("The newest strokes of the player in hand, and his weeks");
        group
            .MapDelete(
                "/strokes/{id:guid}",
                (Guid id, uint version, DeepBaizeContext db, CancellationToken cancel) =>
                    db.DeleteAsync(Kind, Own(db), (id, version), CueStrokeResult.Of, cancel)
            )
            .Saves(Kind.Name)
            .WithName("deleteCueStroke")
            .WithSummary("Deletes a stroke that was measured wrong")
            .ProducesProblem(404)
            .ProducesProblem(409);
        group
            .MapPost("/compare", Compare)
            .WithName("compareCueStrokes")
            .WithSummary("Up to five strokes beside one another: what is alike in them, and what scatters");
    }

    private static IQueryable<CueStroke> Own(DeepBaizeContext db) => db.CueStrokes.Where(s => s.OwnerId == User.LocalId);

    internal static StrokeTiming TimingOf(CueStroke s) =>
        StrokeTiming.Of(
            CueMotion.Create(
                Enum.Parse<CueMeasure>(s.Readings.Measure, ignoreCase: true),
                [.. s.Readings.Times.Zip(s.Readings.Values, (t, v) => new CueSample(t, v))],
                s.Readings.Contact
            )
        );

    private static async Task<Created<CueStrokeResult>> Keep(
        KeepCueRequest request,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var motion = request.Motion.Checked();
        var inHand = await db.InHandAsync(cancel);
        if (await Own(db).CountAsync(s => s.PlayerId == inHand.PlayerId, cancel) >= MostKept)
            throw new InputException("motion", $"{MostKept} strokes are kept already.", "delete some");
        var stroke = new CueStroke
        {
            OwnerId = User.LocalId,
            PlayerId = inHand.PlayerId,
            At = time.GetUtcNow(),
            Source = char.ToLowerInvariant($"{request.Source}"[0]) + $"{request.Source}"[1..],
            Readings = new(
                $"{motion.Measure}".ToLowerInvariant(),
                [.. motion.Samples.Select(s => Math.Round(s.Time, 6))],
                [.. motion.Samples.Select(s => Math.Round(s.Value, 6))],
                motion.Contact
            ),
        };
        return await db.CreateAsync(stroke, s => $"/api/cue/strokes/{s.Id}", CueStrokeResult.Of, cancel);
    }

    private static async Task<CueStrokes> List(DeepBaizeContext db, CancellationToken cancel)
    {
        var player = (await db.InHandAsync(cancel)).PlayerId;
        var rows = await Own(db)
            .AsNoTracking()
            .Where(s => s.PlayerId == player)
            .OrderByDescending(s => s.At)
            .Take(OfWeeks)
            .ToListAsync(cancel);
        var timed = rows.AsParallel().AsOrdered().WithDegreeOfParallelism(2).Select(s => (Row: s, Timing: TimingOf(s))).ToList();
        var weeks = timed
            .GroupBy(t => MondayOf(t.Row.At))
            .OrderByDescending(g => g.Key)
            .Select(g =>
            {
                List<StrokeTiming> told = [.. g.Select(t => t.Timing).Where(t => t.AtContact != SpeedAtContact.Unknown)];
                return new CueWeek(
                    g.Key,
                    g.Count(),
                    told.Count,
                    told.Count(t => t.AtContact == SpeedAtContact.PastPeak),
                    g.Select(t => t.Timing.PeakBefore?.Value).Average(),
                    g.Average(t => t.Timing.Speed.Value),
                    g.Select(t => t.Timing.Smoothness).Average()
                );
            });
        return new(
            [
                .. timed
                    .Take(Shown)
                    .Select(t => new CueStrokeResult(t.Row.Id, t.Row.At, t.Row.Source, TimingResult.Of(t.Timing), t.Row.Version)),
            ],
            [.. weeks]
        );
    }

    private static DateOnly MondayOf(DateTimeOffset at)
    {
        var day = DateOnly.FromDateTime(at.UtcDateTime);
        return day.AddDays(-(((int)day.DayOfWeek + 6) % 7));
    }

    private static async Task<IReadOnlyList<TimingFigure>> Compare(CueCompareRequest request, DeepBaizeContext db, CancellationToken cancel)
    {
        if (request.Ids.Count is < 2 or > TimingComparison.Most)
            throw new InputException("ids", $"{request.Ids.Count} strokes were named.", $"2 to {TimingComparison.Most}");
        var rows = await Own(db).AsNoTracking().Where(s => request.Ids.Contains(s.Id)).ToDictionaryAsync(s => s.Id, cancel);
        var missing = request.Ids.ToList().FindIndex(i => !rows.ContainsKey(i));
        if (missing >= 0)
            throw new InputException($"ids[{missing}]", "There is no such stroke.", "one that is kept");
        return TimingComparison.Of([.. request.Ids.Select(i => TimingOf(rows[i]))]);
    }

    // ---- A file ----------------------------------------------------------------------------------------------------

    private static async Task<CueMotionEntry> ReadCsvAsync(HttpRequest request, CancellationToken cancel)
    {
        using var text = new StreamReader(request.Body, Encoding.UTF8);
        return Parsed(await text.ReadToEndAsync(cancel));
    }

    private static CueMotionEntry Parsed(string text)
    {
        using var reader = new StringReader(text);
        var samples = new List<CueSampleEntry>();
        CueMeasure? measure = null;
        var (time, value) = (-1, -1);
        var checks = new Checks();
        var number = 0;
        // Two columns of figures: nothing is quoted in them.
        while (reader.ReadLine() is { } line)
        {
            number++;
            string[] cells = [.. line.Split([',', ';', '\t']).Select(c => c.Trim())];
            if (line.Trim().Length == 0)
                continue;
            if (measure is null)
            {
                time = Array.FindIndex(cells, c => c.Equals("time", StringComparison.OrdinalIgnoreCase));
                var kind = Array.FindIndex(cells, c => Enum.TryParse<CueMeasure>(c, ignoreCase: true, out _) && !char.IsDigit(c[0]));
                if (time < 0 || kind < 0)
                    throw new InputException($"line {number}", "These are not its columns.", "time, and travel or acceleration");
                (value, measure) = (kind, Enum.Parse<CueMeasure>(cells[kind], ignoreCase: true));
                continue;
            }
            double Cell(int at, string name)
            {
                var isFigure = double.TryParse(
                    cells.ElementAtOrDefault(at),
                    NumberStyles.Float,
                    CultureInfo.InvariantCulture,
                    out var figure
                );
                checks.That(isFigure && double.IsFinite(figure), $"line {number}, {name}", "This is no figure.", "a figure with a point");
                return figure;
            }
            samples.Add(new() { Time = Cell(time, "time"), Value = Cell(value, $"{measure}".ToLowerInvariant()) });
            if (samples.Count > CueMotion.MostSamples)
                throw new InputException($"line {number}", "The file is too long.", $"at most {CueMotion.MostSamples} readings");
        }
        checks.That(measure is not null, "line 1", "The file is empty.", "columns time, and travel or acceleration");
        checks.ThrowIfAny();
        var entry = new CueMotionEntry { Measure = measure!.Value, Samples = samples };
        entry.Checked();
        return entry;
    }
}

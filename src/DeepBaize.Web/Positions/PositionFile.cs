using System.Text.Json;
using System.Text.Json.Serialization;
using DeepBaize.Core;
using DeepBaize.Core.Strokes;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Problems;
using DeepBaize.Web.Records;

namespace DeepBaize.Web.Positions;

/// <summary>A position as a file: docs/formats.md and docs/position.schema.json.</summary>
public sealed record PositionFile
{
    public const string FormatName = "deep-baize-position";

    /// <summary>Since 2 paces are on the present scale; those of a file of version 1 are taken over with their speed.</summary>
    public const int CurrentVersion = 2;

    /// <summary>A field that is not known is an error here: better than to lose it silently.</summary>
    public static readonly JsonSerializerOptions Json = new JsonSerializerOptions(JsonSerializerDefaults.Web)
    {
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        WriteIndented = true,
    }.Strict();

    public required string Format { get; init; }
    public required int Version { get; init; }
    public required string Name { get; init; }
    public string About { get; init; } = "";
    public required IReadOnlyList<BallEntry> Balls { get; init; }
    public StrokeEntry Stroke { get; init; } = new();
    public IReadOnlyDictionary<string, double> Conditions { get; init; } = new Dictionary<string, double>();
    public FrameEntry? Frame { get; init; }

    /// <summary>Strokes that were tried from there; left out without any.</summary>
    public IReadOnlyList<TrialEntry>? Trials { get; init; }

    public static PositionFile Of(PositionDraft draft) =>
        new()
        {
            Format = FormatName,
            Version = CurrentVersion,
            Name = draft.Name,
            About = draft.About,
            Balls = draft.Content.Balls,
            Stroke = draft.Content.Stroke,
            Conditions = draft.Content.Conditions,
            Frame = draft.Content.Frame,
            Trials = draft.Trials.Count > 0 ? draft.Trials : null,
        };

    /// <exception cref="InputException">Another kind of file, or of a later version.</exception>
    public PositionDraft ToDraft()
    {
        RecordStore.CheckFile("position", (Format, Version), (FormatName, CurrentVersion));
        return new()
        {
            Name = Name,
            About = About,
            Trials = Trials ?? [],
            Content = new()
            {
                Balls = Balls,
                Stroke = Version == 1 ? Stroke with { Pace = Pace.OfFirstScale(Stroke.Pace) } : Stroke,
                Conditions = Conditions,
                Frame = Frame,
            },
        };
    }
}

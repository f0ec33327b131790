using System.Globalization;
using System.Text.Json;
using CsvHelper;
using DeepBaize.Core;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Scoring;
using DeepBaize.Core.Table;
using DeepBaize.Data.Frames;
using DeepBaize.Web.Records;

namespace DeepBaize.Web.Frames;

/// <summary>A frame as a file: docs/formats.md and docs/frame.schema.json.</summary>
public sealed record FrameFile
{
    public const string FormatName = "deep-baize-frame";
    public const int CurrentVersion = 1;

    public required string Format { get; init; }
    public required int Version { get; init; }
    public required string Title { get; init; }
    public string First { get; init; } = "";
    public string Second { get; init; } = "";
    public required IReadOnlyList<RecordedShot> Shots { get; init; }

    public static FrameFile Of(FrameRecord f) =>
        new()
        {
            Format = FormatName,
            Version = CurrentVersion,
            Title = f.Title,
            First = f.First,
            Second = f.Second,
            Shots = f.Shots,
        };

    /// <exception cref="InputException">Another kind of file, or of a later version.</exception>
    public NewFrame ToDraft()
    {
        RecordStore.CheckFile("frame", (Format, Version), (FormatName, CurrentVersion));
        return new()
        {
            Title = Title,
            First = First,
            Second = Second,
            Shots = Shots,
        };
    }
}

/// <summary>A frame as a table: a line a shot.</summary>
internal static class FrameCsv
{
    private static readonly string[] Columns =
    [
        "shot",
        "player",
        "on",
        "outcome",
        "potted",
        "points",
        "penalty",
        "break",
        "score_first",
        "score_second",
        "strokes",
        "why",
        "white_x_m",
        "white_y_m",
    ];

    public static string Of(FrameRecord frame)
    {
        using var text = new StringWriter();
        using (var csv = CsvWriter.Create(text, new CsvWriterOptions(), leaveOpen: true))
        {
            csv.WriteRecord(Columns);
            foreach (var (shot, i) in FrameStory.UpTo(frame.Shots).Story.Shots.Select((s, i) => (s, i)))
                csv.WriteRecord(Line(frame, shot, i + 1));
        }
        return text.ToString();
    }

    private static string[] Line(FrameRecord frame, StoryShot s, int number)
    {
        static string Figure(IFormattable? value) => value?.ToString(null, CultureInfo.InvariantCulture) ?? "";
        return
        [
            Figure(number),
            Cell(s.Player == 0 ? frame.First : frame.Second),
            s.On.Name(),
            Camel(s.Shot.Kind),
            string.Join(' ', s.Shot.Potted),
            Figure(s.Points),
            Figure(s.Penalty),
            Figure(s.Points > 0 ? s.After.Break : 0),
            Figure(s.After.Scores.First),
            Figure(s.After.Scores.Second),
            string.Join(' ', s.Shot.Tags.Select(t => Camel(t))),
            s.Shot.Why is { } why ? Camel(why) : "",
            Figure(s.Shot.White?.X),
            Figure(s.Shot.White?.Y),
        ];
    }

    /// <summary>
    /// A text that somebody wrote: begun like a formula, a spreadsheet would reckon with it (OWASP, "CSV Injection"): a ' goes before it.
    /// </summary>
    private static string Cell(string text) => text.Length > 0 && "=+-@\t\r".Contains(text[0]) ? $"'{text}" : text;

    private static string Camel(Enum value) => JsonNamingPolicy.CamelCase.ConvertName(value.ToString());
}

using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using CsvHelper;
using DeepBaize.Core;
using DeepBaize.Web.Positions;

namespace DeepBaize.Web.Practice;

/// <summary>Attempts as a table: a line each, columns by name.</summary>
internal static class AttemptCsv
{
    private enum Cell
    {
        Text,
        Figure,
        YesNo,
    }

    private static readonly (string Name, Cell Kind)[] Columns =
    [
        ("id", Cell.Text),
        ("revision", Cell.Figure),
        ("session", Cell.Text),
        ("sessionStarted", Cell.Text),
        ("player", Cell.Text),
        ("table", Cell.Text),
        ("cue", Cell.Text),
        ("routine", Cell.Text),
        ("step", Cell.Figure),
        ("mirrored", Cell.YesNo),
        ("at", Cell.Text),
        ("said", Cell.YesNo),
        ("done", Cell.YesNo),
        ("reasons", Cell.Text),
        ("body", Cell.Text),
        ("whiteX", Cell.Figure),
        ("whiteY", Cell.Figure),
        ("ballX", Cell.Figure),
        ("ballY", Cell.Figure),
        ("score", Cell.Figure),
        ("kinds", Cell.Text),
        ("group", Cell.Text),
        ("note", Cell.Text),
    ];

    /// <summary>A text begun like a formula, a spreadsheet would reckon with it (OWASP, "CSV Injection"): a ' goes before it.</summary>
    private const string Formulas = "=+-@\t\r";

    public static string Of(IEnumerable<AttemptRow> rows)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = CsvWriter.Create(text, new CsvWriterOptions(), leaveOpen: true))
        {
            csv.WriteRecord(Columns.Select(c => c.Name).ToArray());
            foreach (var row in rows)
            {
                // As it stands in the file of JSON, so that the two say the same.
                var fields = JsonSerializer.SerializeToNode(row, PositionFile.Json)!.AsObject();
                csv.WriteRecord(Columns.Select(c => Written(fields[c.Name], c.Kind)).ToArray());
            }
        }
        return text.ToString();
    }

    private static string Written(JsonNode? value, Cell kind)
    {
        if (value is null)
            return "";
        if (kind != Cell.Text)
            return value.ToJsonString();
        var text = value.GetValue<string>();
        return text.Length > 0 && Formulas.Contains(text[0]) ? $"'{text}" : text;
    }

    /// <exception cref="InputException">A line that cannot be read, by its number.</exception>
    public static List<AttemptRow> Read(string text)
    {
        var rows = new List<AttemptRow>();
        try
        {
            using var csv = CsvReader.FromText(text, new CsvReaderOptions());
            csv.ReadHeader();
            var known = Columns.Where(c => csv.TryGetFieldIndex(c.Name, out _)).ToList();
            while (csv.Read())
                rows.Add(RowOf(csv, known, rows.Count + 2));
        }
        catch (CsvFormatException e)
        {
            throw new InputException("csv", $"It cannot be read as CSV: {e.Message}", "lines as in an exported file");
        }
        return rows;
    }

    private static AttemptRow RowOf(CsvReader csv, List<(string Name, Cell Kind)> columns, int line)
    {
        var fields = new JsonObject();
        foreach (var (name, kind) in columns)
        {
            var value = csv.GetString(name);
            if (value == "" && kind != Cell.Text)
                continue;
            JsonNode? node = kind switch
            {
                Cell.Figure => double.TryParse(value, NumberStyles.Float, CultureInfo.InvariantCulture, out var figure)
                    ? figure == Math.Floor(figure) && Math.Abs(figure) < 1e9
                        ? (int)figure
                        : figure
                    : null,
                Cell.YesNo => bool.TryParse(value, out var yes) ? yes : null,
                _ => value.Length > 1 && value[0] == '\'' && Formulas.Contains(value[1]) ? value[1..] : value,
            };
            fields[name] =
                node ?? throw new InputException("csv", $"Line {line}: “{value}” is not a valid {name}.", "as in an exported file");
        }
        try
        {
            return fields.Deserialize<AttemptRow>(PositionFile.Json)!;
        }
        catch (JsonException e)
        {
            throw new InputException("csv", $"Line {line} cannot be read at {e.Path}.", "as in an exported file");
        }
    }
}

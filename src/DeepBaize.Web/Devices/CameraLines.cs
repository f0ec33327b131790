using System.Buffers;
using System.IO.Pipelines;
using System.Runtime.CompilerServices;
using System.Text.Json;
using DeepBaize.Core;
using DeepBaize.Core.Camera;
using DeepBaize.Core.Table;

namespace DeepBaize.Web.Devices;

/// <summary>The open format of a camera: a line of JSON for each ball in each picture (docs/devices.md, docs/camera.schema.json).</summary>
internal static class CameraLines
{
    /// <summary>Longest line, bytes: five fields take about eighty.</summary>
    private const int LongestLine = 400;

    private const double Around = 0.5,
        UsualDoubt = 0.003,
        GreatestDoubt = 0.05;

    /// <summary>Sightings as they come, line by line.</summary>
    /// <exception cref="InputException">A line that is none, with its number and field.</exception>
    public static async IAsyncEnumerable<Sighting> ReadAsync(Stream body, [EnumeratorCancellation] CancellationToken cancel)
    {
        var reader = PipeReader.Create(body);
        var number = 0;
        while (true)
        {
            var read = await reader.ReadAsync(cancel);
            var buffer = read.Buffer;
            while (TryTakeLine(ref buffer, read.IsCompleted, out var line))
                if (SightingOf(line, ++number) is { } sighting)
                    yield return sighting;
            if (buffer.Length > LongestLine)
                throw new InputException($"lines[{number + 1}]", "The line is too long.", $"at most {LongestLine} bytes");
            reader.AdvanceTo(buffer.Start, buffer.End);
            if (read.IsCompleted)
                break;
        }
        await reader.CompleteAsync();
    }

    private static bool TryTakeLine(ref ReadOnlySequence<byte> buffer, bool isLast, out ReadOnlySequence<byte> line)
    {
        if (buffer.PositionOf((byte)'\n') is { } end)
        {
            line = buffer.Slice(0, end);
            buffer = buffer.Slice(buffer.GetPosition(1, end));
            return true;
        }
        line = buffer;
        if (!isLast || buffer.IsEmpty)
            return false;
        buffer = buffer.Slice(buffer.End);
        return true;
    }

    /// <returns>Null for an empty line.</returns>
    private static Sighting? SightingOf(in ReadOnlySequence<byte> line, int number)
    {
        var path = $"lines[{number}]";
        if (line.Length > LongestLine)
            throw new InputException(path, "The line is too long.", $"at most {LongestLine} bytes");
        var text = line.ToArray().AsSpan().Trim(" \r\t"u8);
        if (text.IsEmpty)
            return null;
        JsonElement json;
        try
        {
            json = JsonSerializer.Deserialize<JsonElement>(text);
        }
        catch (JsonException)
        {
            throw new InputException(path, "This is no JSON.", "an object with time, ball, x, y and doubt");
        }
        if (json.ValueKind != JsonValueKind.Object)
            throw new InputException(path, "This is no object.", "an object with time, ball, x, y and doubt");
        var checks = new Checks(path);
        double Figure(string name, double from, double to, string unit, double? otherwise = null)
        {
            var isThere = json.TryGetProperty(name, out var value);
            if (!isThere && otherwise is { } usual)
                return usual;
            var figure = isThere && value.ValueKind == JsonValueKind.Number && value.TryGetDouble(out var d) ? d : double.NaN;
            checks.Range(name, figure, from, to, unit);
            return figure;
        }
        var time = Figure("time", -1e10, 1e10, " s");
        var (x, y) = (Figure("x", -Around, Dimensions.Length + Around, " m"), Figure("y", -Around, Dimensions.Width + Around, " m"));
        var doubt = Figure("doubt", 0, GreatestDoubt, " m", UsualDoubt);
        var name = json.TryGetProperty("ball", out var said) && said.ValueKind == JsonValueKind.String ? said.GetString() : null;
        // No camera tells reds apart.
        var ball = Ball.Red(1);
        checks.That(name == "red" || Ball.TryParse(name, out ball), "ball", "There is no such ball.", $"red, {Ball.AllowedIds}");
        checks.ThrowIfAny();
        return new(time, ball, new(x, y), doubt);
    }
}

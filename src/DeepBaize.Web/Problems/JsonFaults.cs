using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using DeepBaize.Core;

namespace DeepBaize.Web.Problems;

/// <summary>
/// Finds what is wrong with a JSON that could not be read, by holding it to the type that was wanted: every fault with its field, not the
/// first alone, and without a look at the words of an exception.
/// </summary>
internal sealed class JsonFaults(JsonSerializerOptions options)
{
    private const string AsDescribed = "as in /openapi/v1.json";
    private readonly List<InputError> _errors = [];

    /// <param name="path">Where reading it ended, as the exception has it.</param>
    /// <returns>Empty if nothing is found.</returns>
    public static IReadOnlyList<InputError> Of(ReadOnlyMemory<byte> body, Type wanted, JsonSerializerOptions options, string? path)
    {
        JsonDocument document;
        try
        {
            document = JsonDocument.Parse(body, new() { AllowDuplicateProperties = false });
        }
        catch (JsonException)
        {
            var field = (path ?? "").TrimStart('$').TrimStart('.');
            return [new(field == "" ? "body" : field, "This is not JSON of the expected form.", $"JSON {AsDescribed}", "notJson")];
        }
        using (document)
        {
            var faults = new JsonFaults(options);
            faults.Check(document.RootElement, options.GetTypeInfo(wanted), "");
            return faults._errors;
        }
    }

    private void Check(JsonElement element, JsonTypeInfo type, string path)
    {
        switch (type.Kind)
        {
            case JsonTypeInfoKind.Object when element.ValueKind == JsonValueKind.Object:
                CheckObject(element, type, path);
                break;
            case JsonTypeInfoKind.Enumerable when element.ValueKind == JsonValueKind.Array:
                var items = options.GetTypeInfo(type.ElementType!);
                foreach (var (item, i) in element.EnumerateArray().Select((e, i) => (e, i)))
                    if (item.ValueKind == JsonValueKind.Null && Nullable.GetUnderlyingType(items.Type) is null)
                        _errors.Add(new($"{path}[{i}]", "An element of the list is null.", AsDescribed, "missing"));
                    else
                        Check(item, items, $"{path}[{i}]");
                break;
            case JsonTypeInfoKind.Dictionary when element.ValueKind == JsonValueKind.Object:
                var values = options.GetTypeInfo(type.ElementType!);
                foreach (var property in element.EnumerateObject())
                    Check(property.Value, values, Below(path, property.Name));
                break;
            default:
                CheckValue(element, type, path);
                break;
        }
    }

    private void CheckObject(JsonElement element, JsonTypeInfo type, string path)
    {
        foreach (var property in type.Properties)
        {
            var field = Below(path, property.Name);
            if (!element.TryGetProperty(property.Name, out var value))
            {
                if (property.IsRequired)
                    _errors.Add(new(field, $"{property.Name} is missing.", AsDescribed, "missing"));
            }
            else if (value.ValueKind == JsonValueKind.Null)
            {
                if (!property.IsSetNullable && property.Set is not null)
                    _errors.Add(new(field, $"{property.Name} is null.", AsDescribed, "missing"));
            }
            else if (property.Set is not null || property.AssociatedParameter is not null)
                Check(value, options.GetTypeInfo(property.PropertyType), field);
        }
        if (options.UnmappedMemberHandling != JsonUnmappedMemberHandling.Disallow)
            return;
        var known = type.Properties.Select(p => p.Name).ToHashSet();
        foreach (var property in element.EnumerateObject().Where(p => !known.Contains(p.Name)))
            _errors.Add(new(Below(path, property.Name), $"There is no field {property.Name}.", string.Join(", ", known), "unknownField"));
    }

    private static bool IsOfDouble(Type type) => type == typeof(double) || type == typeof(double?);

    private void CheckValue(JsonElement element, JsonTypeInfo type, string path)
    {
        if (element.ValueKind == JsonValueKind.String && HasNul(element))
            _errors.Add(new(path, "The text holds the character U+0000.", "a text without it", "wrongForm"));
        if (element.ValueKind == JsonValueKind.Number && IsOfDouble(type.Type) && !double.IsFinite(element.GetDouble()))
            _errors.Add(new(path == "" ? "body" : path, "The number is out of range.", "a number of the range of a double", "wrongForm"));
        try
        {
            element.Deserialize(type);
        }
        catch (Exception e) when (e is JsonException or NotSupportedException or FormatException or InvalidOperationException)
        {
            _errors.Add(new(path == "" ? "body" : path, "The value has the wrong form.", AllowedFor(type.Type), "wrongForm"));
        }
    }

    private static bool HasNul(JsonElement text)
    {
        try
        {
            return text.GetString()!.Contains('\0');
        }
        catch (InvalidOperationException)
        {
            // Half a pair of surrogates: told as a value of the wrong form.
            return false;
        }
    }

    private string AllowedFor(Type type)
    {
        var plain = Nullable.GetUnderlyingType(type) ?? type;
        if (plain.IsEnum)
            return string.Join(
                ", ",
                Enum.GetValuesAsUnderlyingType(plain).Cast<object>().Select(v => NameOf(Enum.ToObject(plain, v), plain))
            );
        return plain == typeof(bool) ? "true, false"
            : plain == typeof(int) || plain == typeof(uint) || plain == typeof(long) ? "a whole number"
            : plain == typeof(double) ? "a number"
            : plain == typeof(string) ? "a text"
            : AsDescribed;
    }

    private string NameOf(object value, Type type) => JsonSerializer.SerializeToElement(value, type, options).ToString();

    private static string Below(string path, string name) => path == "" ? name : $"{path}.{name}";
}

/// <summary>The options by which an endpoint reads its body, where they are not the application's own.</summary>
internal sealed record BodyOptions(JsonSerializerOptions Json);

/// <summary>Of an endpoint whose body is a stream: it is not buffered.</summary>
internal sealed record StreamedBody;

using System.Reflection;
using System.Text.RegularExpressions;
using System.Xml.Linq;

namespace DeepBaize.Web;

/// <summary>The docstrings of assemblies, from the XML files that the compiler writes beside them.</summary>
internal sealed partial class XmlDocs(params Assembly[] assemblies)
{
    private readonly Dictionary<string, XElement> _members = assemblies
        .Select(a => Path.ChangeExtension(a.Location, ".xml"))
        .Where(File.Exists)
        .SelectMany(file => XDocument.Load(file).Descendants("member"))
        .ToDictionary(m => m.Attribute("name")!.Value);

    /// <summary>The summary of a type; null if there is none.</summary>
    public string? Of(Type type) => Text(Member($"T:{NameOf(type)}")?.Element("summary"));

    /// <summary>The summary of a property, or of a record's parameter by its name; null if there is none.</summary>
    public string? Of(PropertyInfo property)
    {
        var owner = NameOf(property.DeclaringType!);
        return Text(Member($"P:{owner}.{property.Name}")?.Element("summary"))
            ?? Text(Member($"T:{owner}")?.Elements("param").FirstOrDefault(p => p.Attribute("name")?.Value == property.Name));
    }

    private XElement? Member(string name) => _members.GetValueOrDefault(name);

    private static string NameOf(Type type) => (type.IsGenericType ? type.GetGenericTypeDefinition() : type).FullName!.Replace('+', '.');

    private static string? Text(XElement? element)
    {
        if (element is null)
            return null;
        var words = string.Concat(
            element.Nodes().Select(n => n is XElement e ? e.Attribute("cref")?.Value.Split('.')[^1] ?? e.Value : n.ToString())
        );
        return Space().Replace(System.Net.WebUtility.HtmlDecode(words), " ").Trim();
    }

    [GeneratedRegex(@"\s+")]
    private static partial Regex Space();
}

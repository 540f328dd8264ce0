using System.Collections.Frozen;
using System.Globalization;
using System.Text;

namespace Rendal.Core.Customers;

/// <summary>
/// Knows a country however it is written: by its code of ISO 3166-1, by its name in English or in its own languages, and the countries of
/// Europe by their names in the languages that letters are written in.
/// </summary>
public static class Country
{
    // In German, French, Spanish, Italian and Dutch, and as people write them, where that is not the country's own name or the English
    // one.
    private static readonly string[] Names =
    [
        "AT|Österreich|Autriche|Austria|Oostenrijk|A",
        "BE|Belgien|Belgique|Bélgica|Belgio|België|B",
        "BG|Bulgarien|Bulgarie|Bulgaria|Bulgarije",
        "CH|Schweiz|Suisse|Suiza|Svizzera|Zwitserland",
        "CY|Zypern|Chypre|Chipre|Cipro|Cyprus",
        "CZ|Tschechien|Tschechische Republik|Tchéquie|République tchèque|Chequia|Cechia|Repubblica Ceca|Tsjechië|Czech Republic|Czechia",
        "DE|Deutschland|Allemagne|Alemania|Germania|Duitsland|BRD|D",
        "DK|Dänemark|Danemark|Dinamarca|Danimarca|Denemarken|DK",
        "EE|Estland|Estonie|Estonia",
        "ES|Spanien|Espagne|España|Spagna|Spanje|E",
        "FI|Finnland|Finlande|Finlandia|Finland",
        "FR|Frankreich|France|Francia|Frankrijk|F",
        "GB|UK|Great Britain|England|Scotland|Wales|Northern Ireland|Vereinigtes Königreich|Großbritannien|Royaume-Uni|"
            + "Grande-Bretagne|Reino Unido|Gran Bretaña|Regno Unito|Gran Bretagna|Verenigd Koninkrijk|Groot-Brittannië",
        "GR|Griechenland|Grèce|Grecia|Griekenland",
        "HR|Kroatien|Croatie|Croacia|Croazia|Kroatië",
        "HU|Ungarn|Hongrie|Hungría|Ungheria|Hongarije",
        "IE|Irland|Irlande|Irlanda|Ierland|Eire|Republic of Ireland",
        "IS|Island|Islande|Islandia|Islanda|IJsland",
        "IT|Italien|Italie|Italia|Italië|I",
        "LI|Liechtenstein",
        "LT|Litauen|Lituanie|Lituania|Litouwen",
        "LU|Luxemburg|Luxembourg|Luxemburgo|Lussemburgo|L",
        "LV|Lettland|Lettonie|Letonia|Lettonia|Letland",
        "MT|Malta|Malte",
        "NL|Niederlande|Pays-Bas|Países Bajos|Paesi Bassi|Nederland|Holland|The Netherlands",
        "NO|Norwegen|Norvège|Noruega|Norvegia|Noorwegen|Norge|N",
        "PL|Polen|Pologne|Polonia|Polska",
        "PT|Portugal|Portogallo",
        "RO|Rumänien|Roumanie|Rumanía|Romania|Roemenië",
        "SE|Schweden|Suède|Suecia|Svezia|Zweden|S",
        "SI|Slowenien|Slovénie|Eslovenia|Slovenia|Slovenië",
        "SK|Slowakei|Slovaquie|Eslovaquia|Slovacchia|Slowakije|Slovak Republic",
        "TR|Türkei|Turquie|Turquía|Turchia|Turkije|Turkey",
        "UA|Ukraine|Ucrania|Ucraina|Oekraïne",
        "US|USA|United States of America|Vereinigte Staaten|États-Unis|Estados Unidos|Stati Uniti|Verenigde Staten",
    ];

    private static readonly FrozenDictionary<string, (string Code, string English)> Known = Collected()
        .ToFrozenDictionary(StringComparer.Ordinal);

    /// <summary>
    /// The code of ISO 3166-1 of a country: <c>DE</c> for “Deutschland”, “Germany”, “Allemagne”, “DE” and “DEU”; null for what is none
    /// that is known.
    /// </summary>
    public static string? Code(string written) => Known.TryGetValue(Folded(written), out var known) ? known.Code : null;

    /// <summary>
    /// What all ways to write one country have in common, and countries can be ordered by: its English name, else the text, without case,
    /// accents and punctuation. Empty for an empty text.
    /// </summary>
    public static string Key(string written) =>
        Known.TryGetValue(Folded(written), out var known) ? Folded(known.English) : Folded(written);

    private static Dictionary<string, (string Code, string English)> Collected()
    {
        var known = new Dictionary<string, (string Code, string English)>(StringComparer.Ordinal);
        var english = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (
            var region in CultureInfo
                .GetCultures(CultureTypes.SpecificCultures)
                .Select(c => new RegionInfo(c.Name))
                .Where(r => r.TwoLetterISORegionName.All(char.IsAsciiLetterUpper))
        )
        {
            var code = region.TwoLetterISORegionName;
            english.TryAdd(code, region.EnglishName);
            foreach (var name in new[] { code, region.ThreeLetterISORegionName, region.EnglishName, region.NativeName })
            {
                known.TryAdd(Folded(name), (code, region.EnglishName));
            }
        }

        foreach (var names in Names.Select(n => n.Split('|')))
        {
            foreach (var name in names)
            {
                known[Folded(name)] = (names[0], english.GetValueOrDefault(names[0], names[0]));
            }
        }

        known.Remove("");
        return known;
    }

    private static string Folded(string written) =>
        string.Concat(written.Normalize(NormalizationForm.FormKD).Where(char.IsLetterOrDigit)).ToUpperInvariant();
}

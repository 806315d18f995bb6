/**
 * Reference evapotranspiration of a place (water-need.md section 1): that of short, well-watered grass.
 *
 * Source: FAO Irrigation and Drainage Paper 56, chapters 3 and 4; equations by their numbers there. Temperatures in °C, pressures in kPa,
 * radiation in MJ a square metre and day, wind in metres a second at 2 m, day lengths in hours, results in mm a day. Latitudes in degrees,
 * south negative; only between the polar circles, where the sun rises and sets every day.
 */

/** Millimetres evaporated by 1 MJ a square metre (equation 20). */
const MM_PER_MEGAJOULE = 0.408;
/** Solar constant, MJ a square metre and minute (equation 21). */
const SOLAR_CONSTANT = 0.082;
/** Stefan–Boltzmann constant, MJ a square metre, day and K⁴ (equation 39). */
const STEFAN_BOLTZMANN = 4.903e-9;
/** Albedo of a grass cover (equation 38). */
const ALBEDO = 0.23;

const radians = (degrees: number) => (degrees * Math.PI) / 180;

/** Saturation vapour pressure at a temperature, kPa (equation 11). */
export const saturationPressureKpa = (celsius: number): number =>
  0.6108 * Math.exp((17.27 * celsius) / (celsius + 237.3));

/** Sun on a day at a latitude. */
export interface DayOfSun {
  /** Extraterrestrial radiation, MJ a square metre (equation 21). */
  readonly extraterrestrialMj: number;
  /** From sunrise to sunset (equation 34). */
  readonly daylightHours: number;
}

/**
 * @param latitude −66 to 66.
 * @param dayOfYear 1 to 366.
 */
export function dayOfSun(latitude: number, dayOfYear: number): DayOfSun {
  const angle = ((2 * Math.PI) / 365) * dayOfYear;
  const distance = 1 + 0.033 * Math.cos(angle);
  const declination = 0.409 * Math.sin(angle - 1.39);
  const phi = radians(latitude);
  const sunset = Math.acos(-Math.tan(phi) * Math.tan(declination));
  return {
    extraterrestrialMj:
      ((24 * 60) / Math.PI) *
      SOLAR_CONSTANT *
      distance *
      (sunset * Math.sin(phi) * Math.sin(declination) +
        Math.cos(phi) * Math.cos(declination) * Math.sin(sunset)),
    daylightHours: (24 / Math.PI) * sunset,
  };
}

/** Solar radiation from hours of sunshine (equation 35 with the usual coefficients, 0.25 and 0.5). */
export const radiationFromSunshine = (
  { extraterrestrialMj, daylightHours }: DayOfSun,
  sunshineHours: number,
): number => (0.25 + (0.5 * sunshineHours) / daylightHours) * extraterrestrialMj;

/** The same from the day's two temperatures (equation 50); 0.16 inland, 0.19 on the coast. */
export const radiationFromTemperatures = (
  { extraterrestrialMj }: DayOfSun,
  highestCelsius: number,
  lowestCelsius: number,
  coefficient = 0.16,
): number => coefficient * Math.sqrt(highestCelsius - lowestCelsius) * extraterrestrialMj;

/** Actual vapour pressure from the day's two temperatures and relative humidities, in percent (equation 17). */
export const vapourPressureKpa = (
  highestCelsius: number,
  lowestCelsius: number,
  highestHumidity: number,
  lowestHumidity: number,
): number =>
  (saturationPressureKpa(lowestCelsius) * highestHumidity +
    saturationPressureKpa(highestCelsius) * lowestHumidity) /
  200;

/** Wind at 2 m from wind at another height, both metres a second (equation 47). */
export const windAtTwoMetres = (metresPerSecond: number, heightMetres: number): number =>
  (metresPerSecond * 4.87) / Math.log(67.8 * heightMetres - 5.42);

/** Weather of a day, or the mean of a month. */
export interface Weather {
  readonly highestCelsius: number;
  readonly lowestCelsius: number;
  /** Actual vapour pressure; if unknown, saturation at the lowest temperature (equation 48). */
  readonly vapourPressureKpa?: number;
  /** 2 by default, the world average. */
  readonly windAtTwoMetres?: number;
  /** Solar radiation. */
  readonly radiationMj: number;
  /** Altitude. */
  readonly altitudeMetres: number;
  readonly sun: DayOfSun;
  /** Soil heat flux; 0 for a day, 0.14 × the rise in mean temperature since the month before for a month (equation 44). */
  readonly soilHeatMj?: number;
}

/**
 * Penman–Monteith (equation 6), never negative.
 *
 * @returns mm a day
 */
export function penmanMonteith(weather: Weather): number {
  const { highestCelsius, lowestCelsius, radiationMj, altitudeMetres, sun } = weather;
  const mean = (highestCelsius + lowestCelsius) / 2;
  const vapour = weather.vapourPressureKpa ?? saturationPressureKpa(lowestCelsius);
  const wind = weather.windAtTwoMetres ?? 2;
  // Slope of the saturation curve (13), air pressure (7), psychrometric constant (8).
  const slope = (4098 * saturationPressureKpa(mean)) / (mean + 237.3) ** 2;
  const pressure = 101.3 * ((293 - 0.0065 * altitudeMetres) / 293) ** 5.26;
  const psychrometric = 0.665e-3 * pressure;
  const saturation =
    (saturationPressureKpa(highestCelsius) + saturationPressureKpa(lowestCelsius)) / 2;
  const clearSky = (0.75 + 2e-5 * altitudeMetres) * sun.extraterrestrialMj;
  const kelvinToTheFourth = ((highestCelsius + 273.16) ** 4 + (lowestCelsius + 273.16) ** 4) / 2;
  const longWave =
    STEFAN_BOLTZMANN *
    kelvinToTheFourth *
    (0.34 - 0.14 * Math.sqrt(vapour)) *
    (1.35 * Math.min(1, radiationMj / clearSky) - 0.35);
  const net = (1 - ALBEDO) * radiationMj - longWave;
  const fromSun = MM_PER_MEGAJOULE * slope * (net - (weather.soilHeatMj ?? 0));
  const fromAir = ((psychrometric * 900) / (mean + 273)) * wind * (saturation - vapour);
  return Math.max(0, (fromSun + fromAir) / (slope + psychrometric * (1 + 0.34 * wind)));
}

/**
 * Hargreaves, from temperatures alone (equation 52), never negative.
 *
 * @returns mm a day
 */
export const hargreaves = (
  { extraterrestrialMj }: DayOfSun,
  highestCelsius: number,
  lowestCelsius: number,
): number => {
  const mean = (highestCelsius + lowestCelsius) / 2;
  const swing = Math.max(0, highestCelsius - lowestCelsius);
  return Math.max(
    0,
    0.0023 * (mean + 17.8) * Math.sqrt(swing) * extraterrestrialMj * MM_PER_MEGAJOULE,
  );
};

import { Module } from '@nestjs/common';
import { SimulatedWeather } from './simulated-weather.ts';
import { WeatherController } from './weather.controller.ts';
import { WeatherFeed } from './weather-feed.ts';

/** Weather by town; a real service can replace the simulated one here. */
@Module({
  controllers: [WeatherController],
  providers: [{ provide: WeatherFeed, useClass: SimulatedWeather }],
  exports: [WeatherFeed],
})
export class WeatherModule {}

import { Global, Module, type DynamicModule } from '@nestjs/common';
import { DEMO_SIGN_IN } from '../auth/demo-sign-in.ts';
import { ClosedDemo, DemoService, demoSignIn } from './demo.service.ts';

/** The demo company and its sign-in on the sign-in page. Outside demo mode no one can sign in to it, even if the data exists. */
@Global()
@Module({})
export class DemoModule {
  static when(demo: boolean): DynamicModule {
    return demo
      ? {
          module: DemoModule,
          providers: [DemoService, { provide: DEMO_SIGN_IN, useFactory: demoSignIn }],
          exports: [DEMO_SIGN_IN],
        }
      : { module: DemoModule, providers: [ClosedDemo] };
  }
}
